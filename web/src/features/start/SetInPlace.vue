<script setup lang="ts">
import { ref } from 'vue'
import { answered, api, newID, type Schemas } from '@/shared/api/client'
import LeafLine from '@/shared/LeafLine.vue'
import { readLeafLine } from '@/shared/leafLine'

/** A feeler set made where a job is started: one line of leaves, or a set as it is commonly sold. */
const emit = defineEmits<{ stored: [set: Schemas['GaugeSet']] }>()
const name = ref('')
const trouble = ref('')
const storing = ref(false)
const id = newID()

async function take(text: string) {
  const line = readLeafLine(text)
  trouble.value = line.trouble
  if (line.trouble || storing.value) return
  storing.value = true
  const leaves = line.marks.map((m) => (line.thou ? { marked_in: Number(m), thou: true } : { marked_mm: Number(m) }))
  const called = name.value.trim() || `${line.marks[0]} to ${line.marks.at(-1)} ${line.thou ? 'in' : 'mm'}`
  try {
    emit('stored', await answered(api.POST('/api/v1/gauge-sets', { body: { id, name: called, leaves } })))
  } catch (e) {
    trouble.value = (e as Error).message
  } finally {
    storing.value = false
  }
}
</script>

<template>
  <div class="d-grid ga-3 pa-4 edged rounded">
    <VTextField v-model="name" label="Name of the set, if it has one" maxlength="100" hide-details />
    <LeafLine @take="take" />
    <VAlert v-if="trouble" role="alert">{{ trouble }} Nothing was saved.</VAlert>
    <div class="d-flex"><slot /></div>
  </div>
</template>
