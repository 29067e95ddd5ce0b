<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import NumberField from '@/shared/NumberField.vue'
import { mm } from '@/shared/units'
import PickOne from '@/shared/PickOne.vue'
import { shimChoice } from '@/shared/words'
import ShimMoves from '../parts/ShimMoves.vue'
import ShimSize from '../parts/ShimSize.vue'
import { useBench } from '../useBench'

const { state, practice, act, leave } = useBench()
// What the choice is after first, and whether the cams are out, is the job's: every screen is led by the same choice.
const prefer = computed({
  get: () => state.value.shims_prefer,
  set: (prefer) => act({ kind: 'shims_chosen', prefer, cams_out: state.value.cams_out }),
})
const camsOut = computed({
  get: () => state.value.cams_out,
  set: (cams_out) => act({ kind: 'shims_chosen', prefer: state.value.shims_prefer, cams_out }),
})
const {
  data: plan,
  trouble,
  again,
} = useRead(
  computed(() => (practice.value ? reads.practiceShims : reads.shims)(state.value.id, prefer.value, camsOut.value)),
)
const choices = computed(() =>
  (plan.value?.choices ?? []).map((c) => ({
    value: c.prefer!,
    title: shimChoice[c.prefer!]!,
    costs: `${c.bought} to buy, ${c.disturbed ?? 0} moved, worst ${mm(c.worst_from_aim_mm)} mm off`,
  })),
)
watch(() => state.value.happenings, again)
/** The valve whose size was written down wrongly; and whether it is being looked for. */
const correcting = ref('')
const choosing = ref(false)
const known = computed(() => state.value.valves.filter((v) => v.shim_mm > 0 && !v.out))
/** The valve that is next, whose size is asked where it is not known. */
const at = computed(() => state.value.valves.find((v) => v.name === state.value.now.valve))
const next = computed(() => correcting.value || (at.value && !at.value.out && !at.value.shim_mm ? at.value.name : ''))
function correct(valve: string) {
  correcting.value = valve
  choosing.value = false
}
const moves = computed(() => (plan.value?.fit ?? []).filter((f) => f.from !== f.valve))
/** The work in order from here; its first step is the one to do now. */
const steps = computed(() => plan.value?.steps ?? [])
const now = computed(() => state.value.now.shim)
/** A stand-in that is not of the shop's: its size, as typed. */
const standIn = ref<number | undefined>()
const gives = (step: Schemas['ShimStep']) => step.shim_mm || standIn.value || 0
const button = computed(() => {
  if (!now.value) return ''
  if (now.value.source === 'stays') return `Stays under ${now.value.valve}`
  return now.value.do === 'fit' ? `Fitted under ${now.value.valve}` : `Stand-in under ${now.value.valve}`
})
const mayDo = computed(() => Boolean(now.value) && gives(now.value!) > 0)
function go() {
  const step = now.value
  if (!step || !mayDo.value) return
  act({
    kind: 'adjusted',
    valve: step.valve,
    shim_mm: gives(step),
    from: step.from,
    cams_out: camsOut.value,
    stand_in: step.do === 'stand_in',
  })
  standIn.value = undefined
}
/** A valve that nothing to be had serves: it is left with a reason, or the job waits. */
const stuck = computed(() => (!now.value && !next.value && at.value && !at.value.out ? at.value.name : ''))
/** Why it is not served, and why others are not. */
const lacking = computed(() => plan.value?.impossible.find((l) => l.valve === stuck.value))
const otherLacking = computed(() => plan.value?.impossible.filter((l) => l !== lacking.value) ?? [])
/** What may be tried there all the same, mm. */
const tries = computed(() => lacking.value?.try_mm ?? 0)
/** The valve in question is not clear where the crank stands: with the cams in no shim comes out. */
const away = computed(() => !state.value.cams_out && at.value?.settable === false)
const turnThere = () => act({ kind: 'picked', valve: at.value!.name })
/** Another valve that is to be seen to, where the one that may be tried can wait. */
const others = computed(() => steps.value.find((s) => s.valve && s.valve !== stuck.value)?.valve ?? '')
/** A size that was not here as the choice was made: whoever has it now goes on with it. */
const came = computed(() => {
  const toBuy = plan.value?.fit.find((f) => f.valve === stuck.value && f.source === 'buy')
  return toBuy?.shim_mm ?? lacking.value?.order_mm ?? 0
})
function putIn(shim_mm: number) {
  if (away.value) turnThere()
  else act({ kind: 'adjusted', valve: stuck.value, shim_mm, cams_out: camsOut.value })
}

/** What is to be bought, with what may serve a valve that no size surely serves, thinnest first. */
const order = computed(() => {
  const counts = new Map((plan.value?.buy ?? []).map((b) => [b.shim_mm, b.count]))
  for (const { order_mm } of plan.value?.impossible ?? []) {
    if (order_mm) counts.set(order_mm, (counts.get(order_mm) ?? 0) + 1)
  }
  return [...counts].sort(([a], [b]) => a - b).map(([shim, count]) => `${count} × ${mm(shim)}`)
})
/** The job waits, with everything where it is, for what is to be bought. */
const wait = () =>
  act({
    kind: 'waiting',
    waits_for: 'parts',
    until: order.value.length ? `shims ${order.value.join(', ')}`.slice(0, 120) : `a shim for ${stuck.value}`,
  })
/** Whether it matters after what they are chosen. */
const differ = computed(() => new Set(choices.value.map((c) => c.costs)).size > 1)

const asked = useTemplateRef('asked')
function put(shim_mm: number, stamped_mm: number | undefined) {
  act({ kind: 'sized', valve: next.value, shim_mm, stamped_mm })
  correct('')
}

function key(k: string): boolean {
  if (!next.value) {
    if (k !== 'Enter' || !(mayDo.value || tries.value)) return false
    if (mayDo.value) go()
    else putIn(tries.value)
    return true
  }
  return asked.value?.key(k) ?? false
}
defineExpose({ key })
</script>

<template>
  <div class="shims d-grid ga-2 align-content-start overflow-y-auto">
    <VAlert v-if="trouble">{{ trouble }}</VAlert>
    <template v-if="next">
      <ShimSize
        ref="asked"
        :valve="next"
        :correcting="correcting !== ''"
        :cams-out="state.cams_out"
        :away="away"
        @put="put"
        @cancel="correct('')"
        @turn="turnThere"
      />
    </template>
    <template v-else-if="plan">
      <VAlert v-if="plan.missing.length" role="note">
        Left out of this choice, for want of a figure or a size: {{ plan.missing.join(', ') }}.
      </VAlert>
      <PickOne v-if="differ" v-model="prefer" class="choices d-grid two-columns" label="Which shims" :options="choices">
        <template #default="{ option }">
          <b>{{ option.title }}</b>
          <small>{{ option.costs }}</small>
        </template>
      </PickOne>
      <section v-if="now" class="led edged-brass d-grid ga-2 py-3 px-3 rounded">
        <p v-if="now.do === 'stand_in'" class="step lh-tight fs-26">{{ now.said }}.</p>
        <NumberField
          v-if="now.do === 'stand_in' && !now.shim_mm"
          v-model="standIn"
          :label="`Stand-in, at most ${mm(now.most_mm)}`"
          unit="mm"
        />
        <VBtn class="go tall-64 fs-22" variant="flat" size="large" :disabled="!mayDo" @click="go">
          {{ button }} <kbd>Enter</kbd>
        </VBtn>
        <ol v-if="steps.length > 1" class="after ma-0 ps-6 quiet fs-16" start="2">
          <li v-for="(s, i) in steps.slice(1)" :key="i">{{ s.said }}</li>
        </ol>
      </section>
      <VBtn v-if="tries" class="tall-64 fs-22" variant="flat" @click="putIn(tries)">
        {{ away ? `Turn to where ${stuck} is clear` : `Tried ${mm(tries)} under ${stuck}` }} <kbd>Enter</kbd>
      </VBtn>
      <VBtn v-if="came" :variant="state.waits_said ? 'flat' : 'outlined'" @click="putIn(came)">
        {{ mm(came) }} has come: {{ away ? `turn to where ${stuck} is clear` : `fitted under ${stuck}` }}
      </VBtn>
      <VBtn v-if="tries && others" @click="act({ kind: 'picked', valve: others })">The others first</VBtn>
      <VBtn v-if="stuck" @click="leave(stuck)"> Leave {{ stuck }} as it is… </VBtn>
      <VBtn v-if="(stuck || order.length) && !state.waits_said" @click="wait">Wait for the shims to come</VBtn>
      <VAlert v-if="lacking" role="note">{{ lacking.reason }}</VAlert>
      <ShimMoves :moves="moves" />
      <p v-if="moves.length === 0 && !plan.missing.length && !plan.impossible.length" class="quiet">
        Every valve keeps its shim.
      </p>
      <VCheckbox v-if="camsOut || steps.some((s) => s.do !== 'fit')" v-model="camsOut">
        <template #label>
          The cams are out: every shim can be reached. The crank is not turned with a shim missing.
        </template>
      </VCheckbox>
      <VAlert v-for="p in plan.promised" :key="p.shim_mm" role="note">
        {{ mm(p.shim_mm) }}: {{ p.in_stock }} in stock, {{ p.wanted }} wanted. {{ p.jobs.join(', ') }}
        {{ p.jobs.length > 1 ? 'count' : 'counts' }} on it too.
      </VAlert>
      <p v-if="order.length" class="order">
        Order: <b class="figure brass fs-22">{{ order.join(', ') }}</b>
      </p>
      <p v-if="plan.frontier.length > 1" class="quiet">
        So near can every gap be brought:
        <template v-for="(c, i) in plan.frontier" :key="c.bought"
          >{{ i ? ', ' : '' }}{{ mm(c.worst_from_aim_mm) }} for {{ c.bought }} bought</template
        >.
      </p>
      <p v-if="plan.spare_mm.length" class="quiet">Left over: {{ plan.spare_mm.map(mm).join(', ') }}</p>
      <VAlert v-for="l in otherLacking" :key="l.valve" role="note">{{ l.reason }}</VAlert>
      <VBtn v-if="known.length" :aria-expanded="choosing" @click="choosing = !choosing"> Correct a shim size… </VBtn>
      <div
        v-if="choosing"
        class="known d-flex flex-wrap ga-2"
        role="group"
        aria-label="Which valve’s shim size is wrong"
      >
        <VBtn v-for="v in known" :key="v.name" @click="correct(v.name)">
          {{ v.name }} <span class="figure">{{ mm(v.shim_mm) }}</span>
        </VBtn>
      </div>
    </template>
    <p v-else class="quiet" role="status">Working out shims…</p>
  </div>
</template>

<style scoped>
.choices :deep(.v-btn) {
  --v-btn-height: 72px;

  padding: 4px 12px;
}

.choices :deep(.v-btn__content) {
  display: grid;
  justify-content: start;
  line-height: 1.2;
  text-align: left;
}

.after {
  line-height: 1.35;
}
</style>
