<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { clock } from '@/shared/units'

/** How long the sealant may still stand open, and until when it cures. */
const props = defineProps<{ state: Pick<Schemas['JobState'], 'cover_by' | 'start_from'> }>()

const time = useNow({ interval: 1000 })
const left = (until: string) => Math.floor((new Date(until).getTime() - time.value.getTime()) / 1000)
const minutes = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
const cover = computed(() => (props.state.cover_by ? left(props.state.cover_by) : null))
const cure = computed(() => (props.state.start_from ? left(props.state.start_from) : null))
</script>

<template>
  <p v-if="cover !== null" class="clock bar-brass py-2 px-4 on-panel fs-22" :class="{ late: cover <= 0 }" role="timer">
    <template v-if="cover > 0"
      >Cover on within <b class="figure fs-28">{{ minutes(cover) }}</b></template
    >
    <template v-else>The sealant stood open too long: take it off and put it on afresh.</template>
  </p>
  <p v-if="cure !== null" class="clock bar-brass py-2 px-4 on-panel fs-22" role="timer">
    <template v-if="cure > 0"
      >Do not start before <b class="figure fs-28">{{ clock(state.start_from!) }}</b>: the sealant cures.</template
    >
    <template v-else>The sealant has cured: the engine may run.</template>
  </p>
</template>

<style scoped>
.late {
  border-left: 8px dotted var(--tight);
  color: var(--tight);
}
</style>
