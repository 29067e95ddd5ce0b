<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { Found, JobView, Sighting } from '@/shared/api/client'
import { vRadios } from '@/shared/radios'
import { degrees } from '@/shared/units'
import { capital, seenWords, sightTitle } from '@/shared/words'
import SeenList from '../parts/SeenList.vue'
import SightButton from '../parts/SightButton.vue'
import { useNumberKeys } from '../parts/useNumberKeys'
import { leftSaid, nextSaid, placeSaid } from '../findWords'
import { cylinderSights, valveSights } from '../useFind'

const props = defineProps<{
  view: JobView
  seen: Sighting[]
  found: Found | null
  trouble: string
  looking: Sighting['what']
}>()
const emit = defineEmits<{
  look: [what: Sighting['what']]
  valve: [name: string]
  sign: [id: string]
  mark: [deg: number]
  cylinder: [n: number]
  add: [s: Sighting]
  drop: [s: Sighting]
  go: []
  cancel: []
  /** The engine has run meanwhile. */
  ran: []
}>()

const marks = computed(() => props.view.engine.marks_deg)
const marked = (m: number) => props.seen.some((s) => s.what === 'mark' && s.mark_deg === m)
const signed = (id: string) => props.seen.some((s) => s.sign === id)
const says = (s: Sighting) => seenWords(s, props.view.engine.signs)
/** Lobes are looked at where they can be seen. */
const sights = computed(() =>
  [...cylinderSights, ...valveSights].filter((s) => s !== 'lobe_away' || props.view.engine.gear.cam_seen),
)
const ofCylinders = computed(() => cylinderSights.includes(props.looking))
const saidOf = (s: Sighting) => s.what === props.looking
const ready = computed(() => Boolean(props.found?.known))
const headline = computed(() => placeSaid(props.found, props.seen.length))
const next = computed(() => nextSaid(props.found, props.view.state.plan))

// On a small screen it takes what the head line leaves of it.
const root = useTemplateRef('root')
const above = ref(0)
const measure = () => (above.value = (root.value?.getBoundingClientRect().top ?? 0) + window.scrollY)
onMounted(measure)
useEventListener('resize', measure)

// What is to be tapped next comes into view.
const body = useTemplateRef('body')
const which = useTemplateRef('which')
watch(
  () => props.looking,
  () => which.value?.scrollIntoView?.({ block: 'nearest' }),
  { flush: 'post' },
)
watch(
  () => props.seen.length,
  () => body.value?.scrollTo?.(0, body.value.scrollHeight),
  { flush: 'post' },
)

const number = useNumberKeys(
  (n) => props.view.engine.firing_order.includes(n),
  (n) => emit('cylinder', n),
)

function key(k: string): boolean {
  if (number(k)) return true
  if (k === 'Escape' || k === 'w' || k === 'W') emit('cancel')
  else if (k === 'Enter' && ready.value) emit('go')
  else if (k === 'm' || k === 'M') emit('mark', marks.value[0] ?? 0)
  else if ((k === 'z' || k === 'Backspace') && props.seen.length) emit('drop', props.seen.at(-1)!)
  else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <section
    ref="root"
    class="find d-flex flex-column ga-3 shrinks px-5 pt-4 pb-0"
    aria-label="Where am I?"
    :style="{ '--top': `${above}px` }"
  >
    <header class="head d-flex align-center justify-space-between ga-3">
      <h2 class="lh-none" aria-live="polite">
        {{ headline[0] }}<em class="brass">{{ headline[1] }}</em>
      </h2>
      <VBtn v-if="!seen.length" variant="text" @click="emit('ran')">The engine ran</VBtn>
    </header>
    <div ref="body" class="body d-flex flex-column ga-3 shrinks overflow-y-auto">
      <div class="sights d-grid ga-2" role="group" aria-label="Marks and signs">
        <SightButton
          v-for="(m, i) in marks"
          :key="m"
          what="mark"
          :on="marked(m)"
          :aria-pressed="marked(m)"
          @click="emit('mark', m)"
        >
          <span>{{ m === 0 ? 'TDC mark' : `${degrees(m)} mark` }} at the pointer <kbd v-if="i === 0">M</kbd></span>
        </SightButton>
        <SightButton
          v-for="s in view.engine.signs"
          :key="s.id"
          what="sign"
          :on="signed(s.id)"
          :aria-pressed="signed(s.id)"
          @click="emit('sign', s.id)"
        >
          <span>{{ capital(s.where) }}: {{ s.text }}<small v-if="s.doubtful"> – in doubt</small></span>
        </SightButton>
      </div>
      <div v-radios class="sights d-grid ga-2" role="radiogroup" aria-label="What is seen of a cylinder or a valve">
        <SightButton
          v-for="w in sights"
          :key="w"
          role="radio"
          :what="w"
          :on="looking === w"
          :aria-checked="looking === w"
          @click="emit('look', w)"
        >
          <span>{{ sightTitle[w] }}</span>
        </SightButton>
      </div>
      <div
        ref="which"
        class="which d-flex flex-wrap ga-2"
        role="group"
        :aria-label="`Which one: ${sightTitle[looking]}`"
      >
        <template v-if="ofCylinders">
          <VBtn
            v-for="n in [...view.engine.firing_order].sort((a, b) => a - b)"
            :key="n"
            class="figure"
            :class="{ on: seen.some((s) => saidOf(s) && s.cylinder === n) }"
            :aria-label="`Cylinder ${n}`"
            @click="emit('cylinder', n)"
          >
            {{ n }}
          </VBtn>
        </template>
        <template v-else>
          <VBtn
            v-for="v in view.engine.valves"
            :key="v.name"
            :class="{ on: seen.some((s) => saidOf(s) && s.valve === v.name) }"
            @click="emit('valve', v.name)"
          >
            {{ v.name }}
          </VBtn>
        </template>
      </div>
      <SeenList v-if="seen.length" class="seen" :list="seen.map(says)" @drop="(i) => emit('drop', seen[i]!)" />
      <VAlert v-if="trouble">{{ trouble }}</VAlert>
      <VAlert v-if="found?.conflict">{{ found.conflict }}</VAlert>
      <VAlert v-for="d in found?.doubts" :key="d" role="note">{{ d }}</VAlert>
      <VAlert v-if="found?.one_turn_out" class="out fs-24 lh-tight">{{ found.one_turn_out }}</VAlert>
      <template v-if="found && !found.known && seen.length && found.tell_apart.length">
        <p class="mx-how">To tell them apart, look: which of these do you see?</p>
        <div class="marks fits-200 d-grid ga-2">
          <VBtn v-for="q in found.tell_apart.slice(0, 4)" :key="says(q.look_at)" @click="emit('add', q.look_at)">
            {{ says(q.look_at) }}
          </VBtn>
        </div>
      </template>
      <p v-else-if="found && !found.known && seen.length && !found.conflict" class="mx-how">
        {{ leftSaid(found) }}
      </p>
    </div>
    <footer class="foot flex-0-0 d-grid ga-2 px-0 pt-1 pb-4">
      <div v-if="ready" class="answer d-grid ga-1 fs-22 lh-tight">
        <p v-if="found!.settable.length">
          May be set now: <b class="brass">{{ found!.settable.join(', ') }}</b>
        </p>
        <p v-else>No valve is clear enough here.</p>
        <p>{{ next }}</p>
      </div>
      <div class="do d-flex ga-2">
        <VBtn @click="emit('cancel')">Back <kbd>Esc</kbd></VBtn>
        <VBtn class="go fills fs-22" variant="flat" :disabled="!ready" @click="emit('go')">
          Go on from here <kbd>Enter</kbd>
        </VBtn>
      </div>
    </footer>
  </section>
</template>

<style scoped>
.sights {
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
}

.which .v-btn {
  min-width: 60px;
}

.body {
  flex: 1 1 0;
}

.body > * {
  flex: none;
}

h2 {
  font-size: clamp(28px, 2.9vw, 40px);
}

.do .v-btn {
  min-height: 68px;
}

@media (width <= 1000px) {
  .find {
    height: calc(100dvh - var(--top, 120px));
    min-height: 280px;
  }

  .foot {
    padding-bottom: 8px;
  }
}

@media (width <= 480px) {
  .find {
    padding: 10px 12px 0;
  }

  .sights {
    grid-template-columns: repeat(2, 1fr);
  }
}
</style>
