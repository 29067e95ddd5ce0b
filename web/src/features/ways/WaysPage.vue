<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import PickOne from '@/shared/PickOne.vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import StateNote from '@/shared/StateNote.vue'
import { useKeys } from '@/shared/useKeys'
import { roundOf, useWays } from './useWays'
import WayLook from './WayLook.vue'
import WayRow from './WayRow.vue'

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const job = route.name === 'job-ways'
const w = useWays(job ? { job: id } : { engine: id }, roundOf(route.query))
const { ways, trouble, direction, positions, plan, open, shut, again } = w

const asking = ref(false)
const look = useTemplateRef('look')
const engine = computed(() => ways.value!.engine)
const most = computed(() =>
  Math.max(...open.value.map((p) => p.smallest_margin_deg!), ways.value?.required_margin_deg ?? 1),
)
const card = computed(() => ({
  path: `/engines/${id}/card`,
  query: {
    school: plan.value?.school,
    order: plan.value?.order,
    direction: plan.value?.direction,
    positions: positions.value,
    stops: String(plan.value?.stop_count ?? 0),
  },
}))
async function take() {
  if (await w.take()) await router.push(`/jobs/${id}`)
}

useKeys((k) => {
  if (k === 'ArrowDown' || k === 'ArrowUp') w.step(k === 'ArrowDown' ? 1 : -1)
  else if (k === 'ArrowRight' || k === 'ArrowLeft') look.value?.walk(k === 'ArrowRight' ? 1 : -1)
  else if (k === 'Enter' && job) void take()
  else return false
  return true
})
</script>

<template>
  <AppPage
    title="Sequences"
    :sub="ways?.engine.name"
    :back="job ? 'Bench' : 'Engines'"
    :back-to="job ? `/jobs/${id}` : '/engines'"
    bare
    :ready="ways !== undefined"
    :trouble="trouble"
    failed="The sequences could not be read."
    waiting="Planning…"
    @again="again"
  >
    <template #bar>
      <template v-if="ways">
        <VSwitch
          v-if="engine.may_turn_back || w.backReason.value"
          v-model="direction"
          label="Turn back"
          true-value="back"
          false-value="running"
        />
        <VBtn v-if="job && !engine.may_turn_back && !w.backReason.value" size="small" @click="asking = true">
          Turn back all the same…
        </VBtn>
        <VSwitch v-model="positions" label="Only at marks" true-value="marks" false-value="any" />
        <VBtn size="small" :to="job ? `/jobs/${id}/order` : `/engines/${id}/order`">Is this order right?</VBtn>
        <VBtn v-if="plan && !job" size="small" :to="card">Card</VBtn>
      </template>
    </template>
    <main v-if="ways" class="ways d-grid">
      <section class="list py-4 px-4">
        <VAlert v-if="w.backReason.value && plan" role="note">{{ plan.cautions.at(-1) }}</VAlert>
        <StateNote v-if="trouble" tone="trouble" title="That cannot be done." :text="trouble" />
        <PickOne
          v-if="open.length"
          v-slot="{ option: { p } }"
          :model-value="plan ? w.key(plan) : ''"
          class="rows d-grid"
          label="Sequences, side by side"
          :options="open.map((p) => ({ value: w.key(p), p }))"
          @update:model-value="(k) => (w.chosen.value = k)"
        >
          <WayRow :plan="p" :required="ways.required_margin_deg" :most="most" />
        </PickOne>
        <StateNote
          v-else
          title="No sequence suits this engine."
          text="With these conditions some valve is never clear enough at a stop."
        />
        <section v-for="p in shut" :key="p.school" class="shut mt-3 py-1 px-4 fs-16">
          <b>{{ p.title }}</b> <span class="quiet">not for this engine.</span>
          <p class="quiet">{{ p.reason }}</p>
        </section>
      </section>
      <WayLook v-if="plan" ref="look" :plan="plan" :ways="ways" @best="w.best">
        <VBtn v-if="job" variant="flat" size="large" @click="take"> Use this sequence <kbd>Enter</kbd> </VBtn>
      </WayLook>
    </main>
  </AppPage>
  <ReasonDialog
    v-model="asking"
    title="Why is this engine turned back?"
    text="Its sheet does not allow it: a sprung tensioner may let the belt or chain jump, and the crank bolt can come undone. This holds for this job alone, and the sheet shows it."
    :usual="['No tensioner: gears', 'Tensioner blocked or off', 'The maker allows it for this work']"
    button="Turn back for this reason"
    @reason="w.backAnyway"
  />
</template>

<style scoped>
.ways {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  min-height: calc(100dvh - 62px);
}

.list {
  border-right: 2px solid var(--line);
}

.rows :deep(.v-btn) {
  padding: 8px 16px;
}

.rows :deep(.v-btn__content) {
  flex: 1;
}

.shut {
  border-left: 6px dotted var(--edge);
}

@media (width <= 1000px) {
  .ways {
    grid-template-columns: minmax(0, 1fr);
  }

  .list {
    border-right: 0;
  }
}
</style>
