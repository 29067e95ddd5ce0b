<script setup lang="ts">
import { ref } from 'vue'

const valve = defineModel<string>({ required: true })
const emit = defineEmits<{ leave: [valve: string, reason: string] }>()
const usual = ['Adjuster seized', 'Part on order', 'Owner does not want it touched']
const other = ref('')

function leave(reason: string) {
  emit('leave', valve.value, reason)
  valve.value = ''
}
</script>

<template>
  <VDialog
    :model-value="valve !== ''"
    max-width="520"
    :aria-label="`Leave ${valve} as it is`"
    @update:model-value="(on) => !on && (valve = '')"
  >
    <div class="mx-dialog">
      <h2>Why is {{ valve }} left?</h2>
      <p class="quiet">The sheet will show it out of limits, with this reason.</p>
      <button v-for="u in usual" :key="u" class="mx-btn" type="button" @click="leave(u)">{{ u }}</button>
      <VTextField
        v-model="other"
        label="Another reason"
        maxlength="200"
        hide-details
        @keydown.enter="other.trim() && leave(other.trim())"
      />
      <div class="do">
        <button class="mx-btn" type="button" @click="valve = ''">Go back</button>
        <button class="mx-btn primary" type="button" :disabled="!other.trim()" @click="leave(other.trim())">
          Leave it so
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
