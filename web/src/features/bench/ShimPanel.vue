<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type JobView, type Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'

const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{
  sized: [valve: string, shim: number]
  fitted: [valve: string, shim: number, from: string]
}>()

const plan = ref<Schemas['JobShims'] | null>(null)
const trouble = ref('')
const text = ref('')
const state = computed(() => props.view.state)
const next = computed(() =>
  plan.value?.missing.find((m) => state.value.valves.find((v) => v.name === m)?.shim_mm === 0),
)
const moves = computed(() => (plan.value?.fit ?? []).filter((f) => f.from !== f.valve))
const onBench = (f: Schemas['ShimFit']) => (plan.value?.bench_mm ?? []).includes(f.shim_mm)
const bought = (f: Schemas['ShimFit']) => plan.value?.buy.some((b) => b.shim_mm === f.shim_mm)
const origin = (f: Schemas['ShimFit']) =>
  f.from !== 'stock' ? `from ${f.from}` : onBench(f) ? 'from the bench' : bought(f) ? 'to order' : 'from the shop'

async function load() {
  try {
    plan.value = await answered(api.GET('/api/v1/jobs/{id}/shims', { params: { path: { id: state.value.id } } }))
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
watch(() => state.value.happenings, load, { immediate: true })

const size = computed(() => Number(text.value.replace(',', '.')))
function put() {
  if (!next.value || !(size.value > 0)) return
  emit('sized', next.value, size.value)
  text.value = ''
}

const fit = (f: Schemas['ShimFit']) => emit('fitted', f.valve, f.shim_mm, f.from === 'stock' ? '' : f.from)
const first = computed(() => moves.value.find((f) => f.here))

function key(k: string): boolean {
  if (!next.value) {
    if (k !== 'Enter' || !first.value) return false
    fit(first.value)
    return true
  }
  if (/^[\d.,]$/.test(k) && text.value.length < 6) text.value += k
  else if (k === 'Backspace' && text.value) text.value = text.value.slice(0, -1)
  else if (k === 'Enter' && size.value > 0) put()
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
        Write it down <kbd>Enter</kbd>
      </button>
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
          <button
            class="mx-btn small"
            type="button"
            :disabled="!f.here"
            :title="f.here ? '' : 'not clear of its lobe here'"
            @click="fit(f)"
          >
            {{ f.here ? 'It is in' : 'not here' }} <kbd v-if="f === first">Enter</kbd>
          </button>
        </li>
      </ul>
      <p v-if="moves.length === 0" class="quiet">Nothing is to be moved.</p>
      <p v-if="plan.buy.length" class="order">
        Order: <b v-for="b in plan.buy" :key="b.shim_mm" class="figure">{{ b.count }} × {{ mm(b.shim_mm) }} </b>
      </p>
      <p v-if="plan.spare_mm.length" class="quiet">Over: {{ plan.spare_mm.map(mm).join(', ') }}</p>
      <p v-for="l in plan.impossible" :key="l.location" class="mx-warn">{{ l.message }}</p>
    </template>
    <p v-else class="quiet" role="status">Working the engine over…</p>
  </div>
</template>

<style scoped>
.shims {
  display: grid;
  gap: 10px;
  align-content: start;
  overflow-y: auto;
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
