<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type JobView, type Schemas } from '@/shared/api/client'
import { decimal } from '@/shared/decimal'
import { mm } from '@/shared/units'

const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{
  sized: [valve: string, shim: number]
  fitted: [valve: string, shim: number, from: string, camsOut: boolean]
  leave: [valve: string]
}>()

const plan = ref<Schemas['JobShims'] | null>(null)
const trouble = ref('')
const text = ref('')
const state = computed(() => props.view.state)
/** The valve whose size was written down wrongly; and whether it is being looked for. */
const correcting = ref('')
const choosing = ref(false)
const known = computed(() => state.value.valves.filter((v) => v.shim_mm > 0 && !v.out))
const next = computed(
  () =>
    correcting.value ||
    plan.value?.missing.find((m) => state.value.valves.find((v) => v.name === m)?.shim_mm === 0) ||
    '',
)
function correct(valve: string) {
  correcting.value = valve
  choosing.value = false
  text.value = ''
}
const moves = computed(() => (plan.value?.fit ?? []).filter((f) => f.from !== f.valve))
// With the cams out every shim can be reached, wherever the crank stands.
const camsOut = ref(false)
const origin = (f: Schemas['ShimFit']) =>
  ({ valve: `from ${f.from}`, bench: 'from the loose shims', buy: 'to order', shop: 'from the shop', stays: 'stays' })[
    f.source
  ]
const reach = (f: Schemas['ShimFit']) =>
  f.source !== 'buy' && (camsOut.value || (f.here && (f.source !== 'valve' || f.from_here)))
const why = (f: Schemas['ShimFit']) =>
  f.source === 'buy' ? 'to order' : !f.here ? 'turn to its stop' : `${f.from} is not clear here`
// A valve that is out and keeps its shim by the plan, or that none serves, is left with a reason.
const stuck = computed(() => {
  const at = state.value.valves.find((v) => v.name === state.value.now.valve)
  return at?.needs && !at.out && !moves.value.some((f) => f.valve === at.name) ? at.name : ''
})

async function load() {
  try {
    plan.value = await answered(api.GET('/api/v1/jobs/{id}/shims', { params: { path: { id: state.value.id } } }))
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
watch(() => state.value.happenings, load, { immediate: true })

const size = computed(() => decimal(text.value) ?? 0)
function put() {
  if (!next.value || !(size.value > 0)) return
  emit('sized', next.value, size.value)
  correct('')
}

const fit = (f: Schemas['ShimFit']) =>
  emit('fitted', f.valve, f.shim_mm, f.from === 'stock' ? '' : f.from, camsOut.value)
const first = computed(() => moves.value.find(reach))

function key(k: string): boolean {
  if (!next.value) {
    if (k !== 'Enter' || !first.value) return false
    fit(first.value)
    return true
  }
  if (/^[\d.,]$/.test(k) && text.value.length < 6) text.value += k
  else if (k === 'Backspace' && text.value) text.value = text.value.slice(0, -1)
  else if (k === 'Enter' && size.value > 0) put()
  else if (k === 'Escape' && correcting.value) correct('')
  else return false
  return true
}
defineExpose({ key })
const pad = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', 'Backspace']
</script>

<template>
  <div class="shims">
    <p v-if="trouble" class="mx-warn" role="alert">{{ trouble }}</p>
    <template v-if="next">
      <p class="ask">
        Shim under <b>{{ next }}</b>: <span class="figure">{{ text || '–' }} mm</span>
      </p>
      <div class="pad">
        <button
          v-for="k in pad"
          :key="k"
          class="mx-btn"
          type="button"
          :aria-label="k === 'Backspace' ? 'take back a digit' : k"
          @click="key(k)"
        >
          {{ k === 'Backspace' ? '⌫' : k }}
        </button>
      </div>
      <button class="mx-btn primary" type="button" :disabled="!(size > 0)" @click="put">
        Save size <kbd>Enter</kbd>
      </button>
      <button v-if="correcting" class="mx-btn" type="button" @click="correct('')">Cancel</button>
    </template>
    <template v-else-if="plan">
      <p v-if="plan.missing.length" class="mx-warn">
        No figure for {{ plan.missing.join(', ') }}: read until a leaf drags before the shims are chosen.
      </p>
      <ul class="moves">
        <li v-for="f in moves" :key="f.valve">
          <span class="what"
            ><b>{{ f.valve }}</b>
            <span class="figure">{{ f.fitted_mm ? mm(f.fitted_mm) : 'out' }} → {{ mm(f.shim_mm) }}</span>
            <small>{{ origin(f) }}, gap {{ mm(f.gap_mm) }}; wanted {{ mm(f.wanted_mm) }}</small></span
          >
          <button class="mx-btn small" type="button" :disabled="!reach(f)" @click="fit(f)">
            {{ reach(f) ? 'Fitted' : why(f) }} <kbd v-if="f === first">Enter</kbd>
          </button>
        </li>
      </ul>
      <p v-if="moves.length === 0" class="quiet">Every valve keeps its shim.</p>
      <label v-if="moves.some((f) => f.source === 'valve')" class="cams">
        <input v-model="camsOut" type="checkbox" /> The cams are out: every shim can be reached. The crank is not turned
        with a shim missing.
      </label>
      <button v-if="stuck" class="mx-btn" type="button" @click="emit('leave', stuck)">
        Leave {{ stuck }} out of limits…
      </button>
      <p v-if="plan.buy.length" class="order">
        Order: <b v-for="b in plan.buy" :key="b.shim_mm" class="figure">{{ b.count }} × {{ mm(b.shim_mm) }} </b>
      </p>
      <p v-if="plan.spare_mm.length" class="quiet">Left over: {{ plan.spare_mm.map(mm).join(', ') }}</p>
      <p v-for="l in plan.impossible" :key="l.valve" class="mx-warn">{{ l.reason }}</p>
      <button v-if="known.length" class="mx-btn" type="button" :aria-expanded="choosing" @click="choosing = !choosing">
        Correct a shim size…
      </button>
      <div v-if="choosing" class="known" role="group" aria-label="Which valve’s shim size is wrong">
        <button v-for="v in known" :key="v.name" class="mx-btn" type="button" @click="correct(v.name)">
          {{ v.name }} <span class="figure">{{ mm(v.shim_mm) }}</span>
        </button>
      </div>
    </template>
    <p v-else class="quiet" role="status">Working out shims…</p>
  </div>
</template>

<style scoped>
.known {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.shims {
  display: grid;
  gap: 10px;
  align-content: start;
  overflow-y: auto;
}

.cams {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 56px;
}

.cams input {
  flex: none;
  width: 28px;
  height: 28px;
}

.ask {
  font-size: 26px;
}

.pad {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}

.pad .mx-btn {
  font-size: 26px;
}

.moves {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.moves li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 6px 8px 6px 14px;
  border-left: 6px solid var(--brass);
  background: var(--panel);
}

.what {
  display: grid;
  grid-template-columns: 64px 1fr;
  align-items: baseline;
  font-size: 20px;
}

.what b {
  font-size: 26px;
}

.what small {
  grid-column: 2;
  color: var(--quiet);
  font-size: 15px;
}

.order b {
  margin-right: 14px;
  color: var(--brass);
  font-size: 22px;
}
</style>
