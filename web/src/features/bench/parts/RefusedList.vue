<script setup lang="ts">
import { computed } from 'vue'
import type { Happening } from '@/shared/api/client'
import type { Waiting } from '@/shared/useQueue'
import { actWords } from '../actWords'
import { answerTo } from '../refusals'

/** What the program would not take, what was done here after it, and beside that what others did meanwhile. */
const props = defineProps<{ list: Waiting[]; theirs: Happening[] }>()
const emit = defineEmits<{ answer: [waits: Waiting]; forget: [list: Waiting[]] }>()

const first = computed(() => props.list[0])
const behind = computed(() => props.list.length - 1)
const answer = computed(() => first.value && answerTo(first.value))
</script>

<template>
  <section v-if="first" class="refused d-grid flex-0-0 ga-2 overflow-y-auto" aria-label="Not taken" role="alert">
    <p>
      <b>{{ actWords(first.body) }}</b> was not taken: {{ first.refused }}
    </p>
    <div v-if="behind || theirs.length" class="sides d-grid">
      <div>
        <h3 class="fs-15 quiet">Done meanwhile on another screen</h3>
        <ol>
          <li v-for="h in theirs" :key="h.id">{{ actWords(h) }}</li>
          <li v-if="!theirs.length" class="quiet">nothing</li>
        </ol>
      </div>
      <div>
        <h3 class="fs-15 quiet">Done here, not on the workshop’s disk</h3>
        <ol>
          <li v-for="w in list" :key="w.body.id" :class="{ first: w === first }">{{ actWords(w.body) }}</li>
        </ol>
      </div>
    </div>
    <div class="d-flex flex-wrap ga-2">
      <VBtn v-if="answer" size="small" @click="emit('answer', first)">{{ answer.says }}</VBtn>
      <VBtn size="small" @click="emit('forget', [first])">{{
        behind ? `Leave it out, send the ${behind} after it` : 'Remove'
      }}</VBtn>
      <VBtn v-if="behind" size="small" @click="emit('forget', list)">Leave out all {{ behind + 1 }}</VBtn>
    </div>
  </section>
</template>

<style scoped>
.refused {
  max-height: 60%;
  padding: 12px 14px;
  border-left: 8px solid var(--tight);
  background: var(--panel);
}

@media (width <= 1000px) {
  .refused {
    max-height: none;
  }
}

.sides {
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 10px;
}

ol {
  margin: 0;
  padding-left: 22px;
}

.first {
  color: var(--tight);
}
</style>
