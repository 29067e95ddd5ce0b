<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { onMounted, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { people } from '@/shared/session'
import { backupWords, bytesSaid, often } from '@/shared/backupWords'

/** How backups stand, and a way to have one made now. */
const backups = ref<Schemas['Backups'] | null>(null)
const trouble = ref('')
/** How often it is asked while one is being made, ms. */
const soon = 2000

async function load() {
  backups.value = await answered(api.GET('/api/v1/backups')).catch(() => null)
  if (backups.value?.making) resume()
  else pause()
}
const { pause, resume } = useIntervalFn(load, soon, { immediate: false })
onMounted(load)

async function now() {
  try {
    backups.value = await answered(api.POST('/api/v1/backups'))
    trouble.value = ''
    resume()
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
</script>

<template>
  <section v-if="backups" class="d-grid ga-3">
    <h2 class="fs-24">Backups</h2>
    <p v-if="!backups.on" class="quiet">
      None are made by themselves. Started as
      <code class="in-figures">metronix serve --backups FOLDER</code> the program makes a checked copy each day, best in
      a folder on another disk, and lets the oldest go.
    </p>
    <template v-else>
      <VAlert v-if="backups.trouble || backups.old" role="alert">{{ backupWords(backups) }}</VAlert>
      <p v-else class="fs-20" role="status">{{ backupWords(backups) }}</p>
      <p class="quiet">
        {{ often(backups.every_s) }} into <code class="in-figures text-break">{{ backups.folder }}</code>:
        {{ backups.copies }} kept, {{ bytesSaid(backups.bytes) }}. <code class="in-figures">metronix drill</code> shows
        that the newest can be taken back.
      </p>
      <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
      <div v-if="people.may('run')">
        <VBtn :disabled="backups.making" @click="now">{{
          backups.making ? 'A backup is being made…' : 'Make one now'
        }}</VBtn>
      </div>
    </template>
  </section>
</template>
