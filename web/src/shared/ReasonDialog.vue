<script setup lang="ts">
import { ref, watch } from 'vue'
import { useReturnFocus } from './useReturnFocus'

const open = defineModel<boolean>({ required: true })
defineProps<{ title: string; text: string; usual: string[]; button: string }>()
const emit = defineEmits<{ reason: [reason: string] }>()
const other = ref('')
useReturnFocus(open)
watch(open, () => (other.value = ''))

function say(reason: string) {
  emit('reason', reason)
  open.value = false
}
</script>

<template>
  <VDialog v-model="open" max-width="520" :aria-label="title">
    <div class="mx-dialog">
      <h2>{{ title }}</h2>
      <p class="quiet">{{ text }}</p>
      <button v-for="u in usual" :key="u" class="mx-btn" type="button" @click="say(u)">{{ u }}</button>
      <VTextField
        v-model="other"
        label="Another reason"
        maxlength="200"
        hide-details
        @keydown.enter="other.trim() && say(other.trim())"
      />
      <div class="do">
        <button class="mx-btn" type="button" @click="open = false">Go back</button>
        <button class="mx-btn primary" type="button" :disabled="!other.trim()" @click="say(other.trim())">
          {{ button }}
        </button>
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.do {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
