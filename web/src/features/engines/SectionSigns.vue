<script setup lang="ts">
import { decimals } from '@/shared/decimal'
import PickOne from '@/shared/PickOne.vue'
import { signPeriods } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import type { Sheet } from './useEditor'

/** What can be seen of the crank's place on this engine, sign by sign. */
const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[] }>()

type Sign = NonNullable<Sheet['signs']>[number]

/** A new sign has a name of its own, by which happenings will mean it. */
function add() {
  const list = sheet.value.signs ?? []
  let n = list.length + 1
  while (list.some((s) => s.id === `sign-${n}`)) n++
  sheet.value.signs = [...list, { id: `sign-${n}`, where: '', text: '', at_deg: [0], period_deg: 720 }]
}
function remove(sign: Sign) {
  const left = (sheet.value.signs ?? []).filter((s) => s !== sign)
  if (left.length) sheet.value.signs = left
  else delete sheet.value.signs
}
function say(sign: Sign, what: 'doubtful' | 'check_by', text: string) {
  if (text.trim()) sign[what] = text
  else delete sign[what]
}
</script>

<template>
  <section>
    <h2>Signs of the crank’s place</h2>
    <p class="quiet small fs-16">
      What this engine shows: lines on a cam sprocket, a dowel, the rotor at a tower, a dot on the gear cover. Degrees
      of the crank after firing TDC of the first cylinder of the order.
    </p>
    <div v-for="(s, i) in sheet.signs ?? []" :key="s.id" class="sign d-grid ga-2 pa-3 on-panel bar-edge">
      <div class="fields fits-240 d-grid ga-2">
        <VTextField
          v-model.lazy="s.where"
          label="Where it is seen"
          placeholder="cam sprocket"
          persistent-placeholder
          maxlength="120"
          hide-details
          :error="said(`signs[${i}].where`).length > 0"
        />
        <VTextField
          v-model.lazy="s.text"
          label="What is seen"
          placeholder="up mark at the top"
          persistent-placeholder
          maxlength="120"
          hide-details
          :error="said(`signs[${i}].text`).length > 0"
        />
        <VTextField
          :model-value="s.at_deg.join(' ')"
          label="At"
          suffix="°"
          hide-details
          :error="said(`signs[${i}].at_deg`).length > 0"
          @change="(e: Event) => (s.at_deg = decimals((e.target as HTMLInputElement).value))"
        />
        <VTextField
          :model-value="s.doubtful ?? ''"
          label="In doubt: check it against"
          maxlength="200"
          hide-details
          @update:model-value="(t: string) => say(s, 'doubtful', t)"
        />
        <VTextField
          :model-value="s.check_by ?? ''"
          label="Check it by"
          placeholder="cylinder 1’s lobes lean apart"
          persistent-placeholder
          maxlength="200"
          hide-details
          @update:model-value="(t: string) => say(s, 'check_by', t)"
        />
      </div>
      <div class="row d-flex flex-wrap ga-2 justify-space-between">
        <div>
          <span class="quiet fs-15 d-block" aria-hidden="true">How often it comes round</span>
          <PickOne v-model="s.period_deg" label="How often it comes round" :options="signPeriods" small />
        </div>
        <VBtn size="small" :aria-label="`Remove the sign ${s.where} ${s.text}`" @click="remove(s)">Remove</VBtn>
      </div>
    </div>
    <FieldNotes :problems="said('signs')" :warnings="[]" />
    <VBtn size="small" @click="add">Add a sign</VBtn>
  </section>
</template>
