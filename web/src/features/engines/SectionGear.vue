<script setup lang="ts">
import { decimals } from '@/shared/decimal'
import { computed } from 'vue'
import type { ValveView } from '@/shared/api/client'
import SideView from '@/shared/engine/SideView.vue'
import { peakOf } from '@/shared/engine/sideView'
import { reads, useRead } from '@/shared/api/reads'
import PickOne from '@/shared/PickOne.vue'
import { checkTurns, closings, rotations, threads } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import NumberField from '@/shared/NumberField.vue'
import { label } from './places'
import type { Sheet } from './useEditor'

const sheet = defineModel<Sheet>({ required: true })
const props = defineProps<{
  said: (location: string) => string[]
  warned: (location: string) => string[]
  /** A valve of the engine as it is drawn, to show the gear on. */
  valve?: ValveView
}>()

type Adjuster = NonNullable<Sheet['adjuster']>

const events = [
  ['ivo_btdc_deg', '°'],
  ['ivc_abdc_deg', '°'],
  ['evo_bbdc_deg', '°'],
  ['evc_atdc_deg', '°'],
  ['intake_centre_atdc_deg', '°'],
  ['exhaust_centre_btdc_deg', '°'],
  ['at_lift_mm', 'mm'],
] as const
const { data: gears } = useRead(reads.gears())
const kinds = computed(() => gears.value?.map((g) => ({ value: g.kind, title: g.title })) ?? [])
/** What follows from the kind that is chosen. */
const gear = computed(() => gears.value?.find((g) => g.kind === sheet.value.adjuster?.kind))

function event(name: (typeof events)[number][0], value: number | undefined) {
  const card = { ...(sheet.value.valve_timing ?? {}) }
  if (value === undefined) delete card[name]
  else card[name] = value
  if (Object.keys(card).length) sheet.value.valve_timing = card
  else delete sheet.value.valve_timing
}
const marks = computed({
  get: () => (sheet.value.marks_deg ?? []).join(' '),
  set: (t: string) => {
    const list = decimals(t)
    if (list.length) sheet.value.marks_deg = list
    else delete sheet.value.marks_deg
  },
})
const kind = computed({
  get: () => sheet.value.adjuster?.kind ?? null,
  set: (k: Adjuster['kind'] | null) => {
    if (k) sheet.value.adjuster = { ...(sheet.value.adjuster ?? {}), kind: k }
    else delete sheet.value.adjuster
  },
})
/** The gear is shown with the lobe away from its follower. */
const shut = computed(() => (props.valve?.lift.length ? (peakOf(props.valve.lift) + 360) % 720 : null))
function unusual<K extends 'thread' | 'closes'>(name: K, value: Adjuster[K] | '') {
  if (value) sheet.value.adjuster![name] = value as Adjuster[K]
  else delete sheet.value.adjuster![name]
}
const where = computed({
  get: () => sheet.value.turning_point?.where ?? '',
  set: (t: string) => {
    if (t.trim()) sheet.value.turning_point = { ...(sheet.value.turning_point ?? {}), where: t.trim() }
    else delete sheet.value.turning_point
  },
})
</script>

<template>
  <section>
    <h2>Cam card</h2>
    <p class="quiet small fs-16">Left empty, a typical road cam is assumed, and every plan says so.</p>
    <div class="four fits-200 d-grid ga-2">
      <NumberField
        v-for="[name, unit] in events"
        :key="name"
        :model-value="sheet.valve_timing?.[name]"
        :label="label(name)"
        :unit="unit"
        :error="said(`valve_timing.${name}`).length > 0"
        @update:model-value="(v) => event(name, v)"
      />
      <NumberField
        v-model="sheet.required_margin_deg"
        label="Ramp allowance"
        unit="°"
        :error="said('required_margin_deg').length > 0"
      />
    </div>
    <FieldNotes
      :problems="[...said('valve_timing'), ...said('required_margin_deg')]"
      :warnings="warned('valve_timing')"
    />
  </section>
  <section>
    <h2>Turning and marks</h2>
    <div>
      <span class="quiet fs-15 d-block" aria-hidden="true">Running direction, seen from the front</span>
      <PickOne v-model="sheet.rotation" label="Running direction, seen from the front" :options="rotations">
        <template #after><VSwitch v-model="sheet.may_turn_back" label="May be turned back" /></template>
      </PickOne>
    </div>
    <p class="quiet small fs-16">
      Turning back can undo the crank bolt and let a sprung tensioner slip: only where the maker allows it.
    </p>
    <VTextField
      v-model.lazy="marks"
      label="Marks on the pulley, degrees after TDC"
      placeholder="0 180"
      persistent-placeholder
      suffix="°"
      hide-details
      :error="said('marks_deg').length > 0"
    />
    <div class="four fits-200 d-grid ga-2">
      <VTextField
        v-model.lazy="where"
        label="Turn crank at"
        placeholder="crank pulley bolt"
        persistent-placeholder
        maxlength="120"
        hide-details
        density="comfortable"
      />
      <NumberField
        v-if="sheet.turning_point"
        v-model="sheet.turning_point.socket_mm"
        label="Socket"
        unit="mm"
        :error="said('turning_point').length > 0"
      />
    </div>
    <FieldNotes
      :problems="[...said('marks_deg'), ...said('turning_point'), ...said('rotation')]"
      :warnings="warned('marks_deg')"
    />
  </section>
  <section>
    <h2>Adjuster</h2>
    <VSelect v-model="kind" :items="kinds" label="Adjuster type" clearable hide-details />
    <div v-if="sheet.adjuster" class="four fits-200 d-grid ga-2">
      <NumberField
        v-if="gear?.means === 'turned' || sheet.adjuster.pitch_mm"
        v-model="sheet.adjuster.pitch_mm"
        label="Thread pitch"
        unit="mm"
        :error="said('adjuster.pitch_mm').length > 0"
      />
      <NumberField
        v-if="gear?.needs_ratio || sheet.adjuster.ratio"
        v-model="sheet.adjuster.ratio"
        label="Rocker or finger ratio"
        :error="said('adjuster.ratio').length > 0"
      />
      <NumberField
        v-if="gear?.means === 'felt' || sheet.adjuster.eccentricity_mm"
        v-model="sheet.adjuster.eccentricity_mm"
        label="Eccentricity"
        unit="mm"
        :error="said('adjuster.eccentricity_mm').length > 0"
      />
      <NumberField
        v-if="gear?.lock_nut || sheet.adjuster.locknut_torque_nm"
        v-model="sheet.adjuster.locknut_torque_nm"
        label="Lock nut"
        unit="N·m"
        :error="said('adjuster.locknut_torque_nm').length > 0"
      />
      <NumberField
        v-if="gear?.lock_nut || sheet.adjuster.locknut_torque_lbf_ft"
        v-model="sheet.adjuster.locknut_torque_lbf_ft"
        label="Lock nut"
        unit="lbf·ft"
        :error="said('adjuster.locknut_torque_lbf_ft').length > 0"
      />
    </div>
    <template v-if="sheet.adjuster && gear?.means === 'turned'">
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">Thread of the adjuster</span>
        <PickOne
          :model-value="sheet.adjuster.thread ?? 'right'"
          label="Thread of the adjuster"
          :options="threads"
          small
          @update:model-value="(t) => unusual('thread', t === 'right' ? '' : t)"
        />
      </div>
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">Which way the adjuster closes</span>
        <PickOne
          :model-value="sheet.adjuster.closes ?? ''"
          label="Which way the adjuster closes"
          :options="closings"
          small
          @update:model-value="(c) => unusual('closes', c)"
        />
      </div>
    </template>
    <div v-if="valve && shut !== null && gear?.picture.train" class="gear">
      <SideView :valve="valve" :gear="gear.picture" :crank="shut" settable :verdict="null" leaf="gap" />
    </div>
    <FieldNotes :problems="said('adjuster')" :warnings="warned('adjuster')" />
    <div>
      <span class="quiet fs-15 d-block" aria-hidden="true">Turns of the crank before valves are checked again</span>
      <PickOne
        :model-value="sheet.check_turns ?? 2"
        label="Turns of the crank before valves are checked again"
        :options="checkTurns"
        small
        @update:model-value="(n) => (n === 2 ? delete sheet.check_turns : (sheet.check_turns = n))"
      />
    </div>
  </section>
</template>

<style scoped>
.gear {
  width: 260px;
  height: 278px;
}
</style>
