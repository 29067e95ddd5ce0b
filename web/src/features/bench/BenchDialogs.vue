<script setup lang="ts">
import type { JobView } from '@/shared/api/client'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import type { Over } from './over'
import HeadDialog from './parts/HeadDialog.vue'
import KeyHelp from './parts/KeyHelp.vue'
import LeaveDialog from './parts/LeaveDialog.vue'
import PlayDialog from './parts/PlayDialog.vue'
import TakeDialog from './parts/TakeDialog.vue'
import type { Doing } from './useJob'

/** What is asked over the bench. */
defineProps<{ view: JobView; waits: string[] }>()
const emit = defineEmits<{ do: [doing: Doing] }>()
const over = defineModel<Over>({ required: true })
</script>

<template>
  <KeyHelp v-model="over.help" />
  <HeadDialog v-model="over.head" :view="view" :waits="waits" />
  <PlayDialog v-model="over.playing" :view="view" @do="(d) => emit('do', d)" />
  <TakeDialog v-model="over.taking" :view="view" @do="(d) => emit('do', d)" />
  <LeaveDialog v-model="over.leaving" @do="(d) => emit('do', d)" />
  <ReasonDialog
    :model-value="over.setThough !== ''"
    :title="`Why is ${over.setThough} set though it is in?`"
    text="Disturbing a good valve is a risk. The sheet will show that it was in, and this reason."
    :usual="['To bring it to the aim', 'Nut or screw to be replaced', 'Owner wants all alike']"
    button="Slacken it with this reason"
    @update:model-value="(on) => !on && (over.setThough = '')"
    @reason="(reason) => emit('do', { kind: 'adjusted', valve: over.setThough, reason })"
  />
</template>
