<script setup lang="ts">
import { answered, api } from '@/shared/api/client'
import PickFile from '@/shared/PickFile.vue'

/** The record of the workshop’s work, out as one file and in again. */
const emit = defineEmits<{ said: [text: string]; trouble: [text: string] }>()

/** Takes an archive in: all of it, or nothing. */
async function takeIn(archive: File) {
  emit('trouble', '')
  emit('said', '')
  try {
    const got = await answered(
      api.POST('/api/v1/archive', {
        body: archive as unknown as string,
        bodySerializer: (b) => b,
        headers: { 'Content-Type': 'application/zip' },
      }),
    )
    emit(
      'said',
      `Taken in: ${got.engines} engines, ${got.gauge_sets} feeler sets, ${got.vehicles} vehicles, ${got.jobs} jobs; ${got.already} were here already.`,
    )
    if (got.left_out.length)
      emit(
        'trouble',
        `Not in the archive, because they could not be read when it was made: ${got.left_out.join('; ')}.`,
      )
  } catch (e) {
    emit('trouble', (e as Error).message)
  }
}
</script>

<template>
  <section class="d-grid ga-3">
    <h2 class="fs-24">The record in open formats</h2>
    <p class="quiet">
      Engines, feeler sets, vehicles and every job with its whole list, as a zip of JSON and CSV (docs/formats.md).
      People, the audit list and practice are not in it: a backup holds those too.
    </p>
    <div class="files d-flex flex-wrap ga-2">
      <VBtn size="small" href="/api/v1/archive.zip">Export the record</VBtn>
      <PickFile label="Import an archive" accept=".zip,application/zip" @picked="takeIn" />
    </div>
    <p class="quiet fs-16 mb-n2">For programmers</p>
    <VBtn size="small" class="justify-self-start" href="/api/v1/schemas/engine" target="_blank" rel="noopener"
      >The engine sheet’s JSON Schema</VBtn
    >
  </section>
</template>
