<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'
import { install } from '@/app/shell'
import { handsFree, whyNot, type HandsFree } from '@/shared/handsFree'

/** How the bench is worked at this screen with full hands: learned keys, voice, tones, and a screen that stays on. */
const ways: { does: HandsFree; title: string }[] = [
  { does: 'go', title: 'The one next thing' },
  { does: 'free', title: 'The leaf is free' },
  { does: 'drag', title: 'It drags' },
  { does: 'wont_go', title: 'It won’t go' },
  { does: 'undo', title: 'Take back the last step' },
]
const learning = ref<HandsFree | null>(null)
const refused = ref('')

useEventListener(
  window,
  'keydown',
  (e: KeyboardEvent) => {
    const does = learning.value
    if (!does) return
    e.preventDefault()
    e.stopImmediatePropagation()
    refused.value = e.key === 'Escape' ? '' : whyNot(e.key, does)
    if (e.key !== 'Escape' && !refused.value) handsFree.keys[does] = e.key
    learning.value = null
  },
  { capture: true },
)
const speaks = typeof speechSynthesis !== 'undefined'
const stays = 'wakeLock' in navigator
</script>

<template>
  <section>
    <h2>Hands full, at this screen</h2>
    <p class="quiet">
      A foot switch or a presenter types a key: press <b>Learn</b>, then the switch. No key says that hands are clear,
      that the vehicle is safe or that a tool is off: those are tapped.
    </p>
    <ul class="d-grid ga-2 pa-0 list-none">
      <li v-for="w in ways" :key="w.does" class="d-flex flex-wrap ga-3 align-center">
        <span class="what">{{ w.title }}</span>
        <kbd v-if="handsFree.keys[w.does]">{{ handsFree.keys[w.does] }}</kbd>
        <VBtn size="small" @click="learning = w.does">{{ learning === w.does ? 'Press the switch…' : 'Learn' }}</VBtn>
        <VBtn v-if="handsFree.keys[w.does]" size="small" @click="delete handsFree.keys[w.does]">Forget</VBtn>
      </li>
    </ul>
    <VAlert v-if="refused" role="alert">{{ refused }}</VAlert>
    <VCheckbox v-model="handsFree.tones" label="A tone for in, a lower one twice for out" hide-details />
    <VCheckbox v-model="handsFree.voice" :disabled="!speaks" label="Instructions are spoken" hide-details />
    <p v-if="!speaks" class="quiet">This browser has no voice.</p>
    <VCheckbox v-model="handsFree.awake" :disabled="!stays" label="The screen stays on at the bench" hide-details />
    <p v-if="!stays" class="quiet">
      This browser keeps no screen on here: set the tablet not to switch its screen off.
    </p>
    <VBtn v-if="install.offer.value" @click="install.ask">Put Metronix among this tablet’s programs</VBtn>
  </section>
</template>

<style scoped>
.what {
  min-width: 13em;
}
</style>
