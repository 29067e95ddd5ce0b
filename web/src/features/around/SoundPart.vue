<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import { answered, api, type JobView } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import PickFile from '@/shared/PickFile.vue'

/** How the engine sounds, as it came in or with its valves set: a note, and a recording that this device makes or that is picked. */
const props = defineProps<{ view: JobView; after?: boolean; sealed: boolean }>()
const emit = defineEmits<{ do: [doing: Doing] }>()

/** The longest recording, in seconds. */
const longest = 60
const heard = computed(() => {
  const { phase, sound_after, sound_before, sound_later } = props.view.state
  if (!props.after) return sound_before
  return phase === 'done' ? sound_later : sound_after
})
const note = ref('')
watch(heard, (h) => (note.value = h.note), { immediate: true })
const trouble = ref('')
const recorder = ref<MediaRecorder | null>(null)
const seconds = ref(0)
let timer = 0

function say(file: string) {
  emit('do', {
    kind: 'sound',
    after: props.after || undefined,
    note: note.value.trim() || undefined,
    file: file || undefined,
  })
}
const noted = () => note.value.trim() !== heard.value.note && say(heard.value.file)

async function keep(data: Blob) {
  trouble.value = ''
  try {
    const kept = await answered(
      api.POST('/api/v1/jobs/{id}/sounds', {
        params: { path: { id: props.view.state.id } },
        body: data as unknown as string,
        bodySerializer: (b) => b,
        headers: { 'Content-Type': data.type || 'audio/mp4' },
      }),
    )
    say(kept.hash)
  } catch (e) {
    trouble.value = (e as Error).message
  }
}

/** A browser lends its microphone to a page of this machine or an encrypted one alone; else a file is picked. */
const canRecord = typeof MediaRecorder !== 'undefined' && navigator.mediaDevices !== undefined
async function record() {
  trouble.value = ''
  try {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    const parts: Blob[] = []
    const r = new MediaRecorder(stream)
    r.ondataavailable = (e) => parts.push(e.data)
    r.onstop = () => {
      clearInterval(timer)
      for (const track of stream.getTracks()) track.stop()
      recorder.value = null
      void keep(new Blob(parts, { type: r.mimeType.split(';')[0]! }))
    }
    seconds.value = 0
    timer = window.setInterval(() => ++seconds.value >= longest && stop(), 1000)
    r.start()
    recorder.value = r
  } catch {
    trouble.value = 'The microphone cannot be used. Allow it for this page, or pick a recording.'
  }
}
const stop = () => recorder.value?.stop()
onUnmounted(stop)
</script>

<template>
  <section class="sound" :aria-label="after ? 'How it sounds now' : 'How it sounds before the work'">
    <div v-if="after && view.state.sound_before.file" class="line d-flex flex-wrap ga-3 align-center">
      <span>Before:</span>
      <audio class="max-100" controls preload="none" :src="`/api/v1/sounds/${view.state.sound_before.file}`" />
    </div>
    <VTextField
      v-model="note"
      :label="after ? 'How it sounds now' : 'How it sounds before the work'"
      :placeholder="after ? 'even, no tick' : 'ticks when warm, at idle'"
      persistent-placeholder
      maxlength="400"
      hide-details
      :disabled="sealed"
      @change="noted"
    />
    <div class="line d-flex flex-wrap ga-3 align-center">
      <audio v-if="heard.file" class="max-100" controls preload="none" :src="`/api/v1/sounds/${heard.file}`" />
      <template v-if="!sealed">
        <VBtn v-if="recorder" class="stop brass" @click="stop">Stop, {{ seconds }} s</VBtn>
        <VBtn v-else-if="canRecord" @click="record">{{ heard.file ? 'Record anew' : 'Record' }}</VBtn>
        <PickFile label="Recording from a file" accept="audio/*" @picked="keep" />
      </template>
    </div>
    <VAlert v-if="trouble">{{ trouble }}</VAlert>
  </section>
</template>

<style scoped>
.sound {
  display: grid;
  gap: 10px;
}

.stop {
  border-color: var(--brass);
}

audio {
  height: 48px;
}
</style>
