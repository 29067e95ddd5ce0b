<script setup lang="ts">
import { computed } from 'vue'
import type { JobView } from '@/shared/api/client'
import AppDialog from '@/shared/AppDialog.vue'
import PickOne from '@/shared/PickOne.vue'
import { choices } from '@/shared/words'
import type { Doing } from '../useJob'

/** Play felt by hand at the valves that are clear now and not read yet: it tells where to begin, and judges nothing. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing] }>()
const plays = choices({ none: 'None', some: 'Some', much: 'Much' })
const valves = computed(() => props.view.state.valves.filter((v) => v.may_feel))
</script>

<template>
  <AppDialog v-model="open" title="Play by hand" :width="640">
    <p class="quiet">
      Rock each rocker that is clear here. None is looked at first: tight, or held open. It is no measurement, and every
      valve is read all the same.
    </p>
    <p v-if="!valves.length">No valve is clear here that was not read yet.</p>
    <div v-for="v in valves" :key="v.name" class="one d-grid align-center ga-3">
      <b class="fs-28">{{ v.name }}</b>
      <PickOne
        :model-value="v.play"
        :label="`Play of ${v.name}`"
        :options="plays"
        may-be-none
        @update:model-value="(play) => emit('do', { kind: 'play', valve: v.name, play: play || '' })"
      />
    </div>
    <VBtn variant="flat" size="large" @click="open = false">Back to the leaves</VBtn>
  </AppDialog>
</template>

<style scoped>
.one {
  grid-template-columns: 70px 1fr;
}
</style>
