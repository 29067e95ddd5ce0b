<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { JobView } from '@/shared/api/client'
import { gaps } from '@/shared/units'
import type { Claim } from './usePractice'

/** The slip of paper beside a run in which no bench judges: the limits, the valve in hand, and what is held of each. */
const props = defineProps<{
  view: JobView
  claims: Claim[]
  valve: string
  refusal: string
  kicked: number
  aid: string
  /** The engine has shims. */ shims: boolean
}>()
const emit = defineEmits<{ claim: [c: Claim]; pick: [valve: string] }>()

const of = computed(() => props.view.state.valves.find((v) => v.name === props.valve))
const limits = computed(() => {
  if (!of.value) return ''
  const { window, unit } = gaps(of.value.limits.in_thou)
  return `${window(of.value.limits)} ${unit}`
})
const kind = computed(() => props.view.engine.valves.find((v) => v.name === props.valve)?.kind ?? '')
const claimed = computed(() => props.claims.find((c) => c.valve === props.valve))
const says = { in: 'In', tight: 'Too tight', loose: 'Too loose' } as const
const ways = ['in', 'tight', 'loose'] as const
const worn = ref(false)
const left = ref('')
watch(
  () => props.valve,
  () => {
    worn.value = claimed.value?.worn ?? false
    left.value = claimed.value?.left ?? ''
  },
  { immediate: true },
)
function claim(is: Claim['is']) {
  if (props.valve)
    emit('claim', { valve: props.valve, is, worn: worn.value || undefined, left: left.value.trim() || undefined })
}
/** The next of which nothing is written down. */
function next() {
  const open = props.view.state.valves.map((v) => v.name).filter((n) => !props.claims.some((c) => c.valve === n))
  const after = open.find((n) => n > props.valve) ?? open[0]
  if (after) emit('pick', after)
}
const mark = (valve: string) => {
  const c = props.claims.find((x) => x.valve === valve)
  return c ? `${says[c.is].toLowerCase()}${c.worn ? ', worn' : ''}${c.left ? ', left' : ''}` : '–'
}
defineExpose({
  key(k: string): boolean {
    const at = Number(k) - 1
    if (ways[at]) claim(ways[at])
    else if (k === 'n') next()
    else return false
    return true
  },
})
</script>

<template>
  <section class="paper d-grid ga-4 pa-5 align-content-start" aria-label="Your slip of paper">
    <div class="d-flex flex-wrap align-center ga-4">
      <h2 class="figure fs-34 lh-tight">{{ valve || 'Tap a valve' }}</h2>
      <div v-if="of" class="d-grid">
        <b class="figure fs-28">{{ limits }}</b>
        <span class="quiet">{{ kind }}, {{ view.card.state }}</span>
      </div>
    </div>
    <p v-if="refusal" role="alert">{{ refusal }}</p>
    <p v-else-if="kicked" role="status">Compression threw the crank back by {{ Math.round(kicked) }}°.</p>
    <div class="verdicts d-grid ga-2" role="group" aria-label="What you hold of it">
      <VBtn
        v-for="w in ways"
        :key="w"
        size="large"
        :variant="claimed?.is === w ? 'flat' : 'outlined'"
        :aria-pressed="claimed?.is === w"
        :disabled="!valve"
        @click="claim(w)"
        >{{ says[w] }}</VBtn
      >
    </div>
    <VCheckbox v-model="worn" :disabled="!valve" label="Something is worn here" />
    <VTextField v-model="left" :disabled="!valve" label="Why it is left as it is, if it is" maxlength="200" />
    <p class="quiet">
      What you write down last counts.
      {{
        aid === 'watched'
          ? 'Whoever looks on speaks before something goes wrong.'
          : 'Nothing is told before you end the run.'
      }}
    </p>
    <p class="quiet keys">
      Keys: <kbd>L</kbd> slide, <kbd>+</kbd> <kbd>−</kbd> leaf, <kbd>R</kbd> rock it, <kbd>D</kbd> dial,
      <template v-if="shims"><kbd>O</kbd> shim out and in, <kbd>[</kbd> <kbd>]</kbd> its size,</template>
      <template v-else><kbd>U</kbd> nut, <kbd>,</kbd> <kbd>.</kbd> screw,</template> arrows crank, <kbd>X</kbd> tool
      off, <kbd>1</kbd> <kbd>2</kbd> <kbd>3</kbd> write down, <kbd>N</kbd> next valve, <kbd>E</kbd> end.
    </p>
    <ul class="slip d-grid ga-2 ma-0 pa-0 list-none" aria-label="Written down">
      <li v-for="v in view.state.valves" :key="v.name">
        <button
          type="button"
          class="row d-flex w-100 ga-2 px-3 tall-48 align-center edged rounded on-panel text-left"
          :class="{ 'bar-brass': v.name === valve }"
          @click="emit('pick', v.name)"
        >
          <b class="figure fs-20">{{ v.name }}</b><span :class="{ quiet: mark(v.name) === '–' }">{{
            mark(v.name)
          }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.paper {
  overflow: auto;
}

.verdicts {
  grid-template-columns: repeat(3, minmax(0, 1fr));
}

.slip {
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
}

/* Where there are no keys the engine itself is tapped. */
@media (hover: none), (width <= 640px) {
  .keys,
  .slip {
    display: none;
  }
}

.row {
  color: inherit;
  cursor: pointer;
}
</style>
