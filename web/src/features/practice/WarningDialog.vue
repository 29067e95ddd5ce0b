<script setup lang="ts">
import { computed } from 'vue'
import AppDialog from '@/shared/AppDialog.vue'
import WhyLink from '@/shared/WhyLink.vue'
import type { Warning } from './usePractice'

/** What a good mechanic who looks on would say before it is done. */
const warning = defineModel<Warning | null>({ required: true })
const open = computed({ get: () => warning.value !== null, set: (on) => (warning.value = on ? warning.value : null) })
function anyway() {
  const does = warning.value?.anyway
  warning.value = null
  does?.()
}
</script>

<template>
  <AppDialog v-model="open" title="Wait" :width="520">
    <p class="fs-20">{{ warning?.says }} <WhyLink page="wrong" /></p>
    <div class="d-flex flex-wrap ga-3">
      <VBtn variant="flat" @click="open = false">Leave it</VBtn>
      <VBtn @click="anyway">Do it all the same</VBtn>
    </div>
  </AppDialog>
</template>
