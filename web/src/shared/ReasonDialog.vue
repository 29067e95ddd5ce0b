<script setup lang="ts">
import { ref, watch } from 'vue'
import AppDialog from '@/shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
defineProps<{ title: string; text: string; usual: string[]; button: string }>()
const emit = defineEmits<{ reason: [reason: string] }>()
const other = ref('')
watch(open, () => (other.value = ''))

function say(reason: string) {
  emit('reason', reason)
  open.value = false
}
</script>

<template>
  <AppDialog v-model="open" :title="title" :width="520">
    <p class="quiet">{{ text }}</p>
    <VBtn v-for="u in usual" :key="u" @click="say(u)">{{ u }}</VBtn>
    <slot />
    <VTextField
      v-model="other"
      label="Another reason"
      maxlength="200"
      hide-details
      @keydown.enter="other.trim() && say(other.trim())"
    />
    <div class="do d-grid two-columns ga-2">
      <VBtn @click="open = false">Go back</VBtn>
      <VBtn variant="flat" :disabled="!other.trim()" @click="say(other.trim())">
        {{ button }}
      </VBtn>
    </div>
  </AppDialog>
</template>
