<script setup lang="ts">
import { ref, watch } from 'vue'
import FoldAway from '@/shared/FoldAway.vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import { named } from '@/shared/waits'
import WaitsPick, { type Deferral } from '@/shared/WaitsPick.vue'
import type { Doing } from '../useJob'

/** Asks why a valve stays out of its limits, or until when setting it is put off; empty: nothing is asked. */
const valve = defineModel<string>({ required: true })
const emit = defineEmits<{ do: [doing: Doing] }>()
const deferred = ref<Deferral>({ waits_for: 'date', until: '' })
watch(valve, () => (deferred.value = { waits_for: 'date', until: '' }))

function left(why: { reason: string } | { deferred: Deferral }) {
  emit('do', { kind: 'left_as_is', valve: valve.value, ...why })
  valve.value = ''
}
</script>

<template>
  <ReasonDialog
    :model-value="valve !== ''"
    :title="`Why leave ${valve} as it is?`"
    text="The sheet will show how it was left, with this reason, and the vehicle stays due."
    :usual="['Adjuster seized', 'Part on order', 'Owner does not want it touched']"
    button="Leave it so"
    @update:model-value="(on) => !on && (valve = '')"
    @reason="(reason) => left({ reason })"
  >
    <FoldAway title="Put off until…">
      <WaitsPick v-model="deferred" />
      <VBtn variant="flat" :disabled="!named(deferred)" @click="left({ deferred })">Put {{ valve }} off</VBtn>
    </FoldAway>
  </ReasonDialog>
</template>
