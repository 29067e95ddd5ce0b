<script setup lang="ts">
import { computed, ref } from 'vue'
import { newID, type Happening } from '@/shared/api/client'
import AppDialog from '@/shared/AppDialog.vue'
import { useQueue } from '@/shared/useQueue'
import WaitsPick, { type Deferral } from '@/shared/WaitsPick.vue'
import { named } from '@/shared/waits'

/** Signs a job as put off: what it waits for, until when, and that nothing is left on the engine. */
const props = defineProps<{ job: string; mechanic: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ done: [] }>()

const waits = ref<Deferral>({ waits_for: 'parts' })
const by = ref(props.mechanic)
const tools = ref(false)
const refused = ref('')
const ready = computed(() => tools.value && by.value.trim() && named(waits.value))

const queue = useQueue()
async function sign() {
  const deferred = { ...waits.value, until: waits.value.until?.trim() || undefined }
  const happening = { id: newID(), kind: 'signed', by: by.value.trim(), tools_out: tools.value, deferred }
  await queue.add(props.job, happening as Happening)
  refused.value = await queue.flush(() => {})
  if (refused.value) return
  open.value = false
  emit('done')
}
</script>

<template>
  <AppDialog v-model="open" title="Put the job off" :width="560">
    <p class="quiet">
      The job is signed as it stands. What was read stays on its sheet; the board shows what it waits for.
    </p>
    <WaitsPick v-model="waits" />
    <VTextField v-model="by" label="Signed by" maxlength="100" hide-details />
    <VCheckbox
      v-model="tools"
      label="All tools and leaves accounted for, socket or handle off the crank"
      hide-details
    />
    <VAlert v-if="refused">{{ refused }}</VAlert>
    <div class="do d-grid two-columns ga-2">
      <VBtn @click="open = false">Go back</VBtn>
      <VBtn variant="flat" :disabled="!ready" @click="sign">Sign as put off</VBtn>
    </div>
  </AppDialog>
</template>
