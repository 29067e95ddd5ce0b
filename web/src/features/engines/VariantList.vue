<script setup lang="ts">
import { computed } from 'vue'
import NumberField from '@/shared/NumberField.vue'
import { reads, useRead } from '@/shared/api/reads'
import FieldNotes from './FieldNotes.vue'
import type { Sheet } from './useEditor'

/** How the same engine was also built: with another adjuster, socket or access. One is chosen where a job is started. */
const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[] }>()

type Variant = NonNullable<Sheet['variants']>[number]
type Kind = NonNullable<Variant['adjuster']>['kind']
const { data: gears } = useRead(reads.gears())
const kinds = computed(() => gears.value?.map((g) => ({ value: g.kind, title: g.title })) ?? [])

const list = () => sheet.value.variants ?? []
function put(variants: Variant[]) {
  if (variants.length) sheet.value.variants = variants
  else delete sheet.value.variants
}
function note(v: Variant, text: string) {
  if (text.trim()) v.note = text
  else delete v.note
}
function turned(v: Variant, where: string, socket: number | undefined) {
  if (where.trim() || socket) v.turning_point = { where, ...(socket ? { socket_mm: socket } : {}) }
  else delete v.turning_point
}
function adjuster(v: Variant, kind: Kind | null) {
  if (kind) v.adjuster = { ...v.adjuster, kind }
  else delete v.adjuster
}
function figure(v: Variant, name: 'pitch_mm' | 'ratio', value: number | undefined) {
  if (value) v.adjuster![name] = value
  else delete v.adjuster![name]
}
</script>

<template>
  <section>
    <h2>Variants</h2>
    <p class="quiet small fs-16">Where the same engine was also built otherwise. What is left empty is as above.</p>
    <div v-for="(v, i) in list()" :key="i" class="d-grid ga-2 pa-3 bar-edge on-panel">
      <div class="fits-240 d-grid ga-2">
        <VTextField
          v-model.lazy="v.name"
          label="Variant"
          placeholder="early, 14 mm nut"
          persistent-placeholder
          maxlength="120"
          hide-details
          :error="said(`variants[${i}].name`).length > 0"
        />
        <VTextField
          :model-value="v.note ?? ''"
          label="How it is told"
          maxlength="400"
          hide-details
          @update:model-value="(t: string) => note(v, t)"
        />
        <VTextField
          :model-value="v.turning_point?.where ?? ''"
          label="Turn crank at"
          maxlength="120"
          hide-details
          :error="said(`variants[${i}].turning_point`).length > 0"
          @update:model-value="(t: string) => turned(v, t, v.turning_point?.socket_mm)"
        />
        <NumberField
          :model-value="v.turning_point?.socket_mm"
          label="Socket"
          unit="mm"
          @update:model-value="(mm) => turned(v, v.turning_point?.where ?? '', mm)"
        />
        <VSelect
          :model-value="v.adjuster?.kind ?? null"
          :items="kinds"
          label="Adjuster type"
          clearable
          hide-details
          @update:model-value="(k: Kind | null) => adjuster(v, k)"
        />
        <NumberField
          v-if="v.adjuster"
          :model-value="v.adjuster.pitch_mm"
          label="Thread pitch"
          unit="mm"
          @update:model-value="(x) => figure(v, 'pitch_mm', x)"
        />
        <NumberField
          v-if="v.adjuster"
          :model-value="v.adjuster.ratio"
          label="Rocker or finger ratio"
          @update:model-value="(x) => figure(v, 'ratio', x)"
        />
      </div>
      <VBtn
        size="small"
        class="justify-self-start"
        :aria-label="`Remove the variant ${v.name}`"
        @click="put(list().filter((o) => o !== v))"
        >Remove</VBtn
      >
    </div>
    <FieldNotes :problems="said('variants')" :warnings="[]" />
    <VBtn size="small" class="justify-self-start" @click="put([...list(), { name: '' }])">Add a variant</VBtn>
  </section>
</template>
