<script setup lang="ts">
import { handOf } from '@/shared/hand'
import { computed, ref } from 'vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import { people } from '@/shared/session'
import { useBench } from '../useBench'
import { useRound } from '../useRound'

const { view, state, act, leave } = useBench()

const checks = [
  'All tools and leaves accounted for',
  'Socket or handle off the crank',
  'Faces clean and dry, nothing fallen into plug holes or timing case',
]
const ticked = ref(checks.map(() => false))
/** Where people are set up one signs with one's own name. */
const me = people.me.value
const by = ref(me || handOf(view.value))
/** What was found out of its limits and nobody has decided about: each is asked for. */
const asked = computed(() => state.value.valves.filter((v) => state.value.unanswered.includes(v.name)))
const ready = computed(() => asked.value.length === 0 && ticked.value.every(Boolean) && by.value.trim() !== '')
/** The steps around the bench that wait, where they are ticked off in this job. */
const missing = computed(() => state.value.tasks.filter((t) => state.value.missing.includes(t.id)))
const excepting = ref(false)
/** A check by turning where one is worth it: of those that were set, and nothing else is changed. */
const worth = computed(() => state.value.worth_checking)
function check() {
  const { fields, setting, scope } = useRound(state.value)
  act({ kind: 'round_chosen', ...fields.value, ...setting.value, scope: scope.value, check: 'set_ones' })
}
const left = computed(() => state.value.valves.filter((v) => v.left))

function sign(exceptions?: string) {
  if (missing.value.length && !exceptions) excepting.value = true
  else act({ kind: 'signed', by: by.value.trim(), tools_out: true, exceptions })
}

function key(k: string): boolean {
  const i = Number(k) - 1
  if (i in checks) ticked.value[i] = !ticked.value[i]
  else if (k === 'Enter') {
    if (ready.value) sign()
  } else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="signing d-flex fills flex-column ga-3">
    <VAlert v-if="left.length" variant="tonal" color="" role="note">
      Left as they are: {{ left.map((v) => `${v.name} (${v.left})`).join(', ') }}.
    </VAlert>
    <ul v-if="asked.length" class="asked d-grid ga-2 ma-0 pa-0 list-none" aria-label="Out of limits and not decided">
      <li
        v-for="v in asked"
        :key="v.name"
        class="d-flex flex-wrap align-center justify-space-between gr-2 gc-3 ps-3 pe-1 pt-1 pb-1 on-panel fs-20"
      >
        <span
          ><b>{{ v.name }}</b> is {{ v.last!.judgement.verdict }}: it may not be left without a word.</span
        >
        <VBtn @click="leave(v.name)">Why it is left, or until when…</VBtn>
      </li>
    </ul>
    <VAlert v-if="worth.length" variant="tonal" color="" role="note">
      {{ worth.join(', ') }} fell back twice while the nut went tight. After two turns of the crank it may read
      otherwise.
      <VBtn class="mt-2" @click="check">Check those set by turning</VBtn>
    </VAlert>
    <VBtn class="close tall-56" :to="`/jobs/${state.id}/steps`">
      {{
        !state.guided
          ? 'Close up step by step…'
          : missing.length
            ? `${missing.length} ${missing.length === 1 ? 'step' : 'steps'} still to do…`
            : 'All steps are done'
      }}
    </VBtn>
    <VCheckbox v-for="(c, i) in checks" :key="c" v-model="ticked[i]" class="check py-1 px-3 edged rounded fs-20">
      <template #label
        ><span>{{ c }}</span> <kbd>{{ i + 1 }}</kbd></template
      >
    </VCheckbox>
    <VTextField v-model="by" label="Signed by" maxlength="100" :readonly="me !== ''" hide-details />
    <VBtn class="go mt-auto" variant="flat" size="large" :disabled="!ready" @click="sign()">
      Sign the job <kbd>Enter</kbd>
    </VBtn>
    <ReasonDialog
      v-model="excepting"
      :title="missing.length === 1 ? 'Why is a step left?' : `Why are ${missing.length} steps left?`"
      :text="`Not done: ${missing.map((t) => t.text).join('; ')}. The sheet will show them, with this reason.`"
      :usual="['Closed by somebody else', 'The car waits for parts', 'Engine is not run here']"
      button="Sign with these exceptions"
      @reason="sign"
    />
  </div>
</template>

<style scoped>
.asked li {
  border-left: 6px solid var(--tight);
}

.check :deep(.v-label) {
  flex: 1;
  justify-content: space-between;
  gap: 16px;
  min-height: 60px;
  padding-left: 12px;
  font-size: inherit;
  line-height: 1.25;
}

.check :deep(.v-icon) {
  font-size: 34px;
}

.check :deep(.v-selection-control--dirty .v-icon) {
  color: var(--in);
}

.signing > .v-input {
  flex: none;
}
</style>
