<script setup lang="ts">
import NumberField from '@/shared/NumberField.vue'
import PickOne from '@/shared/PickOne.vue'
import { choices } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import type { Sheet } from './useEditor'

/** Torques as several sources state them, beside the sheet's own figures; one that is not to be used keeps its warning. */
const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[]; warned: (location: string) => string[] }>()

type Torque = NonNullable<Sheet['torques']>[number]
const joints = choices({ locknut: 'Lock nut', cover: 'Cover bolts' })

const list = () => sheet.value.torques ?? []
function put(torques: Torque[]) {
  if (torques.length) sheet.value.torques = torques
  else delete sheet.value.torques
}
function figure(t: Torque, name: 'torque_nm' | 'torque_lbf_ft', value: number | undefined) {
  if (value) t[name] = value
  else delete t[name]
}
function distrust(t: Torque, why: string) {
  if (why.trim()) t.distrusted = why
  else delete t.distrusted
}
</script>

<template>
  <div class="d-grid ga-2">
    <h3 class="fs-20">Torques by other sources</h3>
    <div v-for="(t, i) in list()" :key="i" class="d-grid ga-2 pa-3 bar-edge on-panel">
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">What is tightened</span>
        <PickOne v-model="t.of" label="What is tightened" :options="joints" small />
      </div>
      <div class="fits-200 d-grid ga-2">
        <NumberField
          :model-value="t.torque_nm"
          label="Torque"
          unit="N·m"
          :error="said(`torques[${i}].torque_nm`).length > 0"
          @update:model-value="(v) => figure(t, 'torque_nm', v)"
        />
        <NumberField
          :model-value="t.torque_lbf_ft"
          label="Torque"
          unit="lbf·ft"
          :error="said(`torques[${i}].torque_lbf_ft`).length > 0"
          @update:model-value="(v) => figure(t, 'torque_lbf_ft', v)"
        />
        <VTextField
          v-model.lazy="t.source"
          label="Source"
          maxlength="120"
          hide-details
          :error="said(`torques[${i}].source`).length > 0"
        />
        <VTextField
          :model-value="t.distrusted ?? ''"
          label="Do not use, because"
          maxlength="200"
          hide-details
          @update:model-value="(why: string) => distrust(t, why)"
        />
      </div>
      <VBtn
        size="small"
        class="justify-self-start"
        :aria-label="`Remove the torque of ${t.source}`"
        @click="put(list().filter((o) => o !== t))"
        >Remove</VBtn
      >
    </div>
    <FieldNotes :problems="said('torques')" :warnings="warned('torques')" />
    <VBtn size="small" class="justify-self-start" @click="put([...list(), { of: 'locknut', source: '' }])"
      >Add a torque</VBtn
    >
  </div>
</template>
