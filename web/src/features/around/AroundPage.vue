<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import PickOne from '@/shared/PickOne.vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import { useKeys } from '@/shared/useKeys'
import { useJob } from '@/features/bench/useJob'
import SoundPart from './SoundPart.vue'
import BoltsDrawing from './BoltsDrawing.vue'
import LearnPart from './LearnPart.vue'
import NextSteps from './NextSteps.vue'
import NutsPart from './NutsPart.vue'
import SealantClocks from './SealantClocks.vue'
import StandPart from './StandPart.vue'
import StepList from './StepList.vue'
import FindingsPart from './FindingsPart.vue'
import TakeInPart from './TakeInPart.vue'
import ToolsPart from './ToolsPart.vue'
import WornLeaves from './WornLeaves.vue'
import { countOf, partNames, parts, standing, together, useAround, type Part, type Task } from './useAround'

const id = String(useRoute().params.id)
const { view, state, trouble, refusal, load, send, undo } = useJob(id)
onMounted(load)
const { tasks, next, closing } = useAround(view)

const part = ref<Part>('take_in')
const chosen = ref(false)
watch(
  [next, view],
  () =>
    !chosen.value &&
    view.value &&
    (part.value = state.value?.phase === 'done' ? 'start_up' : (next.value?.part ?? 'open_up')),
  {
    immediate: true,
  },
)
function choose(to: Part) {
  chosen.value = true
  part.value = to
}
const options = computed(() =>
  parts.map((p) => ({ value: p, title: partNames[p], count: view.value ? countOf(view.value, p) : '' })),
)
const shown = computed(() => tasks.value.filter((t) => t.part === part.value))
/** The step that waits in the part that is shown. */
const now = computed(() => shown.value.find((t) => !t.marked))
const sealed = computed(() => state.value?.phase === 'done')
/** What comes after the signature is added to it: the start, how it sounds, the road test. */
const shut = computed(() => sealed.value && part.value !== 'start_up')
/** Groups that were opened, to be ticked one by one. */
const opened = ref<string[]>([])
const group = computed(() => (now.value ? together(shown.value, now.value, opened.value) : []))

const mark = (t: Task, more: { skip?: boolean; back?: boolean; reason?: string; with?: string[] } = {}) =>
  send({ kind: 'task', task: t.id, ...more })
async function done(t: Task, others: Task[] = []) {
  await mark(t, others.length ? { with: others.map((o) => o.id) } : {})
  if (!refusal.value && !shown.value.some((s) => !s.marked)) chosen.value = false
}

/** What a reason is asked for: passing a step over, or doing it all the same. */
const asking = ref<{ task: Task; skip: boolean } | null>(null)
const refusedStart = computed(() => refusal.value !== '' && now.value?.id === 'start')

useKeys((k) => {
  if (k === 'Enter' && now.value && part.value !== 'take_in' && !shut.value) void done(now.value, group.value.slice(1))
  else if (k === 'z' || k === 'Z') void undo()
  else return false
  return true
})
</script>

<template>
  <AppPage
    :title="view?.vehicle.name ?? 'Steps'"
    :sub="view?.engine.name"
    back="Bench"
    :back-to="`/jobs/${id}`"
    :ready="view !== null"
    :trouble="trouble?.message ?? ''"
    failed="This job could not be opened."
    waiting="Opening the job…"
    @again="load"
  >
    <template #bar>
      <VBtn v-if="state" size="small" :disabled="!state.undo || sealed" @click="undo">Undo <kbd>Z</kbd></VBtn>
      <VBtn v-if="state" size="small" :to="`/jobs/${id}/sheet`">Sheet</VBtn>
    </template>
    <div v-if="view && state" class="around d-grid ga-4">
      <PickOne
        :model-value="part"
        class="parts d-flex flex-wrap ga-2"
        label="Part of the job"
        :options="options"
        @update:model-value="choose"
      >
        <template #default="{ option }"
          >{{ option.title }}
          <span v-if="option.count" class="figure count ms-2 quiet">{{ option.count }}</span></template
        >
      </PickOne>
      <SealantClocks :state="state" />
      <VAlert v-if="refusal" variant="tonal" color="">
        {{ refusal }}
        <VBtn v-if="refusedStart" size="small" @click="asking = { task: now!, skip: false }">Start anyway…</VBtn>
      </VAlert>

      <TakeInPart v-if="part === 'take_in'" :view="view" @do="send" @next="choose('open_up')" />
      <FindingsPart v-else-if="part === 'findings'" :view="view" :sealed="sealed" @do="send" />
      <ToolsPart
        v-else-if="part === 'tools'"
        :tools="state.tools"
        :sealed="sealed"
        :turned-by="state.turned_by"
        :caution="state.turn_caution"
        :made="state.tools_made"
        :hot-work="state.hot_work"
        @do="send"
      />
      <template v-else>
        <NextSteps
          v-if="now && !shut"
          :group="group"
          @done="done(now, group.slice(1))"
          @open="opened.push(now.group)"
          @over="asking = { task: now, skip: true }"
        >
          <NutsPart v-if="now.id === 'nuts'" :view="view" @do="send" />
          <BoltsDrawing
            v-if="group.some((t) => t.id.startsWith('bolts_')) && state.bolts.length"
            :bolts="state.bolts"
          />
        </NextSteps>
        <section v-else class="next edged-brass d-grid ga-3 py-4 px-5 rounded">
          <h2 class="lh-tight">
            {{ partNames[part] }}: <em class="brass">{{ standing(shown, sealed) }}</em>
          </h2>
          <div class="do d-flex flex-wrap ga-2">
            <VBtn v-if="sealed" class="go fs-22" variant="flat" size="large" :to="`/jobs/${id}/sheet`"
              >To the sheet</VBtn
            >
            <VBtn v-else class="go fs-22" variant="flat" size="large" :to="`/jobs/${id}`">{{
              closing ? 'On to signing' : 'On to the valves'
            }}</VBtn>
          </div>
        </section>
        <LearnPart v-if="part === 'open_up' && !sealed" :view="view" @do="send" />
        <SoundPart v-if="part === 'start_up'" :view="view" after :sealed="shut" @do="send" />
        <StepList :tasks="shown" :now="now" :sealed="shut" @done="done" @back="(t) => mark(t, { back: true })" />
        <WornLeaves v-if="part === 'start_up'" :set="view.gauge_name" />
      </template>
      <StandPart v-if="!sealed" :view="view" @do="send" />
    </div>
  </AppPage>
  <ReasonDialog
    :model-value="asking !== null"
    :title="asking?.skip ? 'Why is it skipped?' : 'Why start it anyway?'"
    :text="`${asking?.task.text ?? ''}. The sheet will show the reason.`"
    :usual="
      asking?.skip
        ? ['Not on this engine', 'Not needed this time', 'Done by somebody else']
        : ['The sealant’s own sheet allows it', 'Gasket without sealant']
    "
    :button="asking?.skip ? 'Skip it' : 'Start with this reason'"
    @update:model-value="(on) => !on && (asking = null)"
    @reason="(reason) => asking && mark(asking.task, { skip: asking.skip || undefined, reason })"
  />
</template>

<style scoped>
.around {
  max-width: 1000px;
}

.parts {
  height: auto;
}

.around :deep(.next h2) {
  font-size: clamp(26px, 2.6vw, 34px);
}

.around :deep(.do .v-btn) {
  min-height: 64px;
}

.around :deep(.go) {
  flex: 1 1 220px;
}

@media (width <= 480px) {
  .parts {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }

  .parts :deep(.v-btn) {
    padding: 0 8px;
  }
}
</style>
