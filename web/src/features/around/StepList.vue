<script setup lang="ts">
import { computed } from 'vue'
import FoldAway from '@/shared/FoldAway.vue'
import { clock } from '@/shared/units'
import type { Task } from './useAround'

/** The steps of one part of the job, ticked or waiting, each with a tap of its own. */
const props = defineProps<{
  tasks: Task[]
  /** The one that waits first. */
  now?: Task
  sealed: boolean
}>()
defineEmits<{ done: [task: Task]; back: [task: Task] }>()

/** Those that are done fold away while others wait: whether they are, and the steps. */
const lists = computed<[boolean, Task[]][]>(() => {
  const left = props.tasks.filter((t) => !t.marked)
  const done = props.tasks.filter((t) => t.marked)
  if (!left.length || !done.length) return [[false, props.tasks]]
  return [
    [false, left],
    [true, done],
  ]
})
</script>

<template>
  <component
    :is="done ? FoldAway : 'div'"
    v-for="[done, rows] in lists"
    :key="String(done)"
    :title="done ? `Done: ${rows.length}` : undefined"
  >
    <ol class="list d-grid ga-1 ma-0 pa-0 list-none">
      <li
        v-for="t in rows"
        :key="t.id"
        class="d-grid ga-3 align-center on-panel fs-20"
        :class="{ marked: t.marked, skipped: t.skipped, now: t === now }"
      >
        <VBtn
          class="tick pa-0 fs-26"
          :disabled="sealed"
          :aria-pressed="t.marked"
          :aria-label="`${t.text}: ${t.skipped ? 'skipped' : t.marked ? 'done' : 'waits'}`"
          @click="t.marked ? $emit('back', t) : $emit('done', t)"
        >
          {{ t.skipped ? '–' : t.marked ? '✓' : '' }}
        </VBtn>
        <span class="text"
          >{{ t.text
          }}<small v-if="t.reason" class="quiet d-block fs-15">{{ t.skipped ? 'Skipped: ' : '' }}{{ t.reason }}</small
          ><small v-if="t.grouped" class="quiet d-block fs-15">ticked as a group</small></span
        >
        <span v-if="t.at" class="quiet figure">{{ clock(t.at) }}</span>
      </li>
    </ol>
  </component>
</template>

<style scoped>
.list li {
  grid-template-columns: 56px 1fr auto;
  padding-right: 14px;
}

.tick {
  --v-btn-height: 56px;

  min-width: 56px;
}

.marked .tick {
  border-color: var(--in);
  color: var(--in);
}

.skipped .tick {
  border-color: var(--undecided);
  border-style: dashed;
  color: var(--undecided);
}

.marked .text {
  color: var(--quiet);
}

.now .text {
  font-weight: 700;
}
</style>
