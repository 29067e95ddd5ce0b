<script setup lang="ts">
import { computed } from 'vue'
import type { HappeningOf } from '@/shared/api/client'
import PickOne from './PickOne.vue'
import { choices } from './words'

export type Deferral = NonNullable<HappeningOf<'signed'>['deferred']>

/** What a job waits for, and until when or for which: told as complete once a date or an odometer is named. */
const model = defineModel<Deferral>({ required: true })
const waitsFor = choices({ date: 'A date', odometer: 'An odometer', parts: 'Parts', cams: 'Other cams' })
const asked = computed(
  () =>
    ({ date: 'Until which date', odometer: 'Until which odometer', parts: 'Which parts', cams: 'Which cams' })[
      model.value.waits_for
    ],
)
</script>

<template>
  <PickOne
    :model-value="model.waits_for"
    label="What it waits for"
    :options="waitsFor"
    small
    @update:model-value="(waits_for) => (model = { ...model, waits_for })"
  />
  <VTextField
    :model-value="model.until ?? ''"
    :label="asked"
    :type="model.waits_for === 'date' ? 'date' : 'text'"
    maxlength="120"
    hide-details
    @update:model-value="(until: string) => (model = { ...model, until })"
  />
</template>
