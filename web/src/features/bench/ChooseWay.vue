<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { answered, api, type PlanView } from '@/shared/api/client'
import { vRadios } from '@/shared/radios'
import StateNote from '@/shared/StateNote.vue'
import { degrees } from '@/shared/units'
import { orderName } from '@/shared/words'

const props = defineProps<{ jobId: string; valves: number; present: PlanView | null }>()
const emit = defineEmits<{ choose: [plan: PlanView]; preview: [plan: PlanView | null]; cancel: [] }>()

const ways = ref<PlanView[]>([])
const trouble = ref('')
const cursor = ref(0)
const list = useTemplateRef<HTMLElement>('list')
const open = computed(() => ways.value.filter((w) => w.applies))
const closed = computed(() =>
  ways.value.filter((w, i, all) => !w.applies && all.findIndex((o) => o.school === w.school) === i),
)
const groups = computed(() => {
  const schools = [...new Set(open.value.map((w) => w.school))]
  return schools.map((school) => ({ school, plans: open.value.filter((w) => w.school === school) }))
})

onMounted(async () => {
  try {
    ways.value = (await answered(api.GET('/api/v1/jobs/{id}/ways', { params: { path: { id: props.jobId } } }))).plans
    const rocking = open.value.findIndex((w) =>
      props.present
        ? w.school === props.present.school && w.order === props.present.order
        : w.school === 'rocking_pairs',
    )
    cursor.value = Math.max(0, rocking)
  } catch (e) {
    trouble.value = (e as Error).message
  }
})
watch(
  () => open.value[cursor.value],
  async (plan) => {
    emit('preview', plan ?? null)
    await nextTick()
    list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' })
  },
)

function take() {
  const plan = open.value[cursor.value]
  if (plan) emit('choose', plan)
}

function key(k: string): boolean {
  const n = open.value.length
  if (k === 'ArrowDown' || k === 'ArrowRight') cursor.value = (cursor.value + 1) % Math.max(1, n)
  else if (k === 'ArrowUp' || k === 'ArrowLeft') cursor.value = (cursor.value + n - 1) % Math.max(1, n)
  else if (k === 'Enter') take()
  else if (k === 'Escape' && props.present) emit('cancel')
  else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="ways">
    <StateNote v-if="trouble" tone="trouble" title="The sequences could not be read." :text="trouble" />
    <div ref="list" v-radios class="list" role="radiogroup" aria-label="Sequences">
      <section v-for="g in groups" :key="g.school" class="school">
        <h3>{{ g.plans[0]!.title }}</h3>
        <p class="quiet">{{ g.plans[0]!.how_to }}</p>
        <div class="orders">
          <button
            v-for="p in g.plans"
            :key="p.order"
            type="button"
            role="radio"
            class="order"
            :class="{ on: open[cursor] === p }"
            :aria-checked="open[cursor] === p"
            @click="cursor = open.indexOf(p)"
          >
            <b>{{ orderName(p.order) }}</b>
            <span class="figure">{{ p.stops!.length }} stops · {{ degrees(p.total_turn_deg!) }}</span>
            <small>clear by {{ degrees(p.smallest_margin_deg!) }}</small>
          </button>
        </div>
      </section>
      <section v-for="w in closed" :key="w.school" class="school shut">
        <h3>{{ w.title }} <small>not for this engine</small></h3>
        <p class="quiet">{{ w.reason }}</p>
      </section>
    </div>
    <div class="do">
      <button v-if="present" class="mx-btn" type="button" @click="$emit('cancel')">Keep the sequence</button>
      <RouterLink class="mx-btn" :to="`/jobs/${jobId}/ways`">Side by side</RouterLink>
      <button class="mx-btn primary go" type="button" :disabled="!open[cursor]" @click="take">
        Use this sequence <kbd>Enter</kbd>
      </button>
    </div>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
}

.list {
  display: grid;
  flex: 1;
  align-content: start;
  gap: 14px;
  overflow-y: auto;
}

.school {
  padding: 12px 16px 14px;
  border-left: 6px solid var(--edge);
  background: var(--panel);
}

.school:has(.on) {
  border-color: var(--brass);
}

.shut {
  border-left-style: dotted;
  background: none;
}

h3 {
  font-size: 24px;
  line-height: 1.2;
}

h3 small {
  color: var(--quiet);
  font-size: 16px;
  font-weight: 400;
}

.orders {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  margin-top: 8px;
}

.order {
  display: grid;
  gap: 2px;
  min-height: 72px;
  padding: 8px 12px;
  border: 2px solid var(--line);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.order .figure {
  font-size: 17px;
}

.order small {
  color: var(--quiet);
  font-size: 15px;
}

.order.on {
  border-color: var(--brass);
  background: var(--wash);
  box-shadow: inset 0 0 0 2px var(--brass);
}

.do {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 10px;
  padding: 6px 0;
  background: var(--ground);
}

.go {
  flex: 1;
  font-size: 22px;
}
</style>
