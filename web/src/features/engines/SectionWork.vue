<script setup lang="ts">
import NumberField from '@/shared/NumberField.vue'
import PickOne from '@/shared/PickOne.vue'
import { choices } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import TorqueList from './TorqueList.vue'
import type { Sheet } from './useEditor'

/** How this engine is opened, what comes off in which order, and how it is closed again. */
const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[]; warned: (location: string) => string[] }>()

type Step = NonNullable<Sheet['strip_list']>[number]
type Closing = NonNullable<Sheet['closing']>

const patterns = choices({ middle_out: 'Middle outwards', crosswise: 'Crosswise', numbered: 'Maker’s numbers' })
const gaskets = choices({ dry: 'Dry', stuck_first: 'Stuck to the cover first' })

const steps = () => sheet.value.strip_list ?? []
function put(list: Step[]) {
  if (list.length) sheet.value.strip_list = list
  else delete sheet.value.strip_list
}
function move(i: number, by: number) {
  const list = [...steps()]
  const [step] = list.splice(i, 1)
  list.splice(i + by, 0, step!)
  put(list)
}
/** What is left empty is not said: it goes from the sheet. */
function text(step: Step, name: 'fastener' | 'note', t: string) {
  if (t.trim()) step[name] = t
  else delete step[name]
}
function socket(step: Step, mm: number | undefined) {
  if (mm) step.socket_mm = mm
  else delete step.socket_mm
}
function close<K extends keyof Closing>(name: K, value: Closing[K] | undefined) {
  const closing = { ...sheet.value.closing }
  if (!value) delete closing[name]
  else closing[name] = value
  if (Object.keys(closing).length) sheet.value.closing = closing
  else delete sheet.value.closing
}
const points = (t: string) =>
  t
    .split(/[;\n]/)
    .map((p) => p.trim())
    .filter(Boolean)
function lift(t: string) {
  if (t.trim()) sheet.value.variable_lift = t
  else delete sheet.value.variable_lift
}
</script>

<template>
  <section>
    <h2>Opening and closing</h2>
    <p class="quiet small fs-16">
      What comes off to reach the valves, in order; it is read backwards for closing. A job adds to this list by taps.
    </p>
    <ol v-if="steps().length" class="steps d-grid ga-2 ma-0 pa-0 list-none">
      <li v-for="(s, i) in steps()" :key="i" class="d-grid ga-2 pa-3 bar-edge on-panel">
        <div class="fields fits-200 d-grid ga-2">
          <VTextField
            v-model.lazy="s.text"
            label="What comes off"
            maxlength="120"
            hide-details
            density="comfortable"
            :error="said(`strip_list[${i}].text`).length > 0"
          />
          <VTextField
            :model-value="s.fastener ?? ''"
            label="Its fastener"
            maxlength="120"
            hide-details
            density="comfortable"
            @update:model-value="(t: string) => text(s, 'fastener', t)"
          />
          <NumberField
            :model-value="s.socket_mm"
            label="Socket"
            unit="mm"
            :error="said(`strip_list[${i}].socket_mm`).length > 0"
            @update:model-value="(v) => socket(s, v)"
          />
          <VTextField
            :model-value="s.note ?? ''"
            label="What to mind"
            maxlength="400"
            hide-details
            density="comfortable"
            @update:model-value="(t: string) => text(s, 'note', t)"
          />
        </div>
        <div class="row d-flex flex-wrap ga-2 justify-end">
          <VBtn size="small" :disabled="i === 0" :aria-label="`${s.text}: earlier`" @click="move(i, -1)">Earlier</VBtn>
          <VBtn size="small" :disabled="i === steps().length - 1" :aria-label="`${s.text}: later`" @click="move(i, 1)"
            >Later</VBtn
          >
          <VBtn size="small" :aria-label="`Remove ${s.text}`" @click="put(steps().filter((o) => o !== s))">Remove</VBtn>
        </div>
      </li>
    </ol>
    <FieldNotes :problems="said('strip_list')" :warnings="[]" />
    <VBtn size="small" class="add justify-self-start" @click="put([...steps(), { text: '' }])">Add what comes off</VBtn>
    <VTextField
      :model-value="sheet.variable_lift ?? ''"
      label="Variable lift: how its gear is checked before any valve"
      placeholder="none on this engine"
      persistent-placeholder
      maxlength="200"
      hide-details
      @update:model-value="lift"
    />
    <TorqueList v-model="sheet" :said="said" :warned="warned" />
    <h3 class="fs-20">The cover</h3>
    <div class="row start d-flex flex-wrap ga-2 justify-start">
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">Pattern of its bolts</span>
        <PickOne
          :model-value="sheet.closing?.pattern ?? ''"
          label="Pattern of its bolts"
          :options="patterns"
          small
          may-be-none
          @update:model-value="(v) => close('pattern', v || undefined)"
        />
      </div>
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">Gasket</span>
        <PickOne
          :model-value="sheet.closing?.gasket ?? ''"
          label="Gasket"
          :options="gaskets"
          small
          may-be-none
          @update:model-value="(v) => close('gasket', v || undefined)"
        />
      </div>
    </div>
    <div class="fields fits-200 d-grid ga-2">
      <NumberField
        :model-value="sheet.closing?.bolts"
        label="Bolts"
        whole
        :error="said('closing.bolts').length > 0"
        @update:model-value="(v) => close('bolts', v)"
      />
      <NumberField
        :model-value="sheet.closing?.rounds"
        label="Rounds"
        placeholder="2"
        whole
        :error="said('closing.rounds').length > 0"
        @update:model-value="(v) => close('rounds', v)"
      />
      <NumberField
        :model-value="sheet.closing?.torque_nm"
        label="Torque"
        unit="N·m"
        :error="said('closing.torque_nm').length > 0"
        @update:model-value="(v) => close('torque_nm', v)"
      />
      <NumberField
        :model-value="sheet.closing?.torque_lbf_ft"
        label="Torque"
        unit="lbf·ft"
        :error="said('closing.torque_lbf_ft').length > 0"
        @update:model-value="(v) => close('torque_lbf_ft', v)"
      />
    </div>
    <VTextField
      :model-value="(sheet.closing?.sealant_points ?? []).join('; ')"
      label="Sealant at (separate with ;)"
      hide-details
      @change="
        (e: Event) => {
          const list = points((e.target as HTMLInputElement).value)
          close('sealant_points', list.length ? list : undefined)
        }
      "
    />
    <div class="fields fits-200 d-grid ga-2">
      <NumberField
        :model-value="sheet.closing?.open_minutes"
        label="Sealant may stand open"
        placeholder="the usual"
        unit="min"
        :error="said('closing.open_minutes').length > 0"
        @update:model-value="(v) => close('open_minutes', v)"
      />
      <NumberField
        :model-value="sheet.closing?.cure_minutes"
        label="It cures for"
        placeholder="the usual"
        unit="min"
        :error="said('closing.cure_minutes').length > 0"
        @update:model-value="(v) => close('cure_minutes', v)"
      />
    </div>
    <FieldNotes :problems="said('closing')" :warnings="[]" />
  </section>
</template>
