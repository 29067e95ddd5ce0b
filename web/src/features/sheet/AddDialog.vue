<script setup lang="ts">
import { computed, ref } from 'vue'
import { newID, type Happening } from '@/shared/api/client'
import AppDialog from '@/shared/AppDialog.vue'
import { useQueue } from '@/shared/useQueue'

/** Adds to a signed job what changes nothing of it: a correction, or a second signature. */
const props = defineProps<{ job: string; what: 'amended' | 'countersigned' }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ done: [] }>()
const by = ref('')
const text = ref('')
const refused = ref('')
const correcting = computed(() => props.what === 'amended')
const ready = computed(() => by.value.trim() !== '' && (!correcting.value || text.value.trim() !== ''))

const queue = useQueue()
async function add() {
  const body = correcting.value
    ? { kind: 'amended' as const, text: text.value.trim(), by: by.value.trim() }
    : { kind: 'countersigned' as const, by: by.value.trim() }
  await queue.add(props.job, { id: newID(), ...body } as Happening)
  refused.value = await queue.flush(() => {})
  if (refused.value) return
  open.value = false
  text.value = ''
  emit('done')
}
</script>

<template>
  <AppDialog v-model="open" :title="correcting ? 'Add a correction' : 'Countersign'" :width="520">
    <p class="quiet">
      {{
        correcting
          ? 'What was signed stays as it is: the correction is added below it, with your name and the time.'
          : 'A tutor or foreman signs below, another person than the one who signed.'
      }}
    </p>
    <VAlert v-if="refused">{{ refused }}</VAlert>
    <VTextField v-if="correcting" v-model="text" label="What is to be corrected" maxlength="400" hide-details />
    <VTextField v-model="by" label="By" maxlength="100" hide-details />
    <div class="do d-grid two-columns ga-2">
      <VBtn @click="open = false">Go back</VBtn>
      <VBtn variant="flat" :disabled="!ready" @click="add">{{ correcting ? 'Add it' : 'Countersign' }}</VBtn>
    </div>
  </AppDialog>
</template>
