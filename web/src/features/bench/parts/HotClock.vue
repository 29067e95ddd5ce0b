<script setup lang="ts">
import { mine } from '@/shared/mine'
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { later } from '@/shared/later'

const AppDialog = later(() => import('@/shared/AppDialog.vue'))

const heat = mine('temperature')
const props = defineProps<{ clock: Schemas['HotClock']; engineC: number | null }>()
const emit = defineEmits<{ stopped: [] }>()
const now = useNow({ interval: 1000 })
const open = ref(false)

const minutes = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds) % 60).padStart(2, '0')}`
const left = computed(() => Math.floor((new Date(props.clock.until).getTime() - now.value.getTime()) / 1000))
const words = computed(() => (left.value > 0 ? `${minutes(left.value)} left` : 'too late – re-check hot'))
/** What each stop ahead may take, and what this one has taken. */
const each = computed(() =>
  left.value > 0 && props.clock.stops_left > 0 ? minutes(left.value / props.clock.stops_left) : '',
)
const here = computed(() =>
  props.clock.stop_since
    ? minutes(Math.max(0, (now.value.getTime() - new Date(props.clock.stop_since).getTime()) / 1000))
    : '',
)
function stopped() {
  open.value = false
  emit('stopped')
}
</script>

<template>
  <div class="hot-clock flex-0-0 text-no-wrap">
    <VBtn class="hot is-tight" :class="{ over: left <= 0 }" size="small" aria-haspopup="dialog" @click="open = true">
      <span class="two d-grid lh-tight text-left" role="timer">
        <b class="figure">{{ words }}</b>
        <small v-if="each" class="fs-14">{{ here ? `here ${here}, ` : '' }}{{ each }} a stop</small>
        <small v-else class="fs-14">{{ engineC === null ? 'judged hot' : `hot ${heat.short(engineC)}` }}</small>
      </span>
    </VBtn>
    <AppDialog v-model="open" title="Hot figures hold for ten minutes" :width="520">
      <p class="mx-how">
        {{
          clock.stopped
            ? 'The time counts from when the engine was shut off.'
            : 'The time counts from when the temperature was taken.'
        }}
        What is read later is marked, and offered again.
      </p>
      <p v-if="clock.stops_left" class="mx-how">
        {{ clock.stops_left }} {{ clock.stops_left === 1 ? 'stop' : 'stops' }} still to work at.
      </p>
      <VAlert role="note">Before a second warm-up: every nut tight, tool off the crank, cover on.</VAlert>
      <VBtn variant="flat" @click="stopped">Engine ran again: stopped now</VBtn>
      <VBtn @click="open = false">Back</VBtn>
    </AppDialog>
  </div>
</template>

<style scoped>
/* What must be seen without a swipe stands first where the head line is short. */

.hot {
  border-color: var(--tight);
}

.over {
  border-style: dashed;
}
</style>
