<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import type { Found, JobView, Sighting } from '@/shared/api/client'
import { vRadios } from '@/shared/radios'
import { degrees } from '@/shared/units'
import { capital, seenWords, sightTitle } from '@/shared/words'
import SightGlyph from '../parts/SightGlyph.vue'
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
const sights = [...cylinderSights, ...valveSights]
const ofCylinders = computed(() => cylinderSights.includes(props.looking))
const saidOf = (s: Sighting) => s.what === props.looking
const ready = computed(() => Boolean(props.found?.known))
const headline = computed(() => {
  const { found } = props
  if (found?.conflict) return ['That cannot ', 'all be.']
  if (found?.known) return ['The crank stands at ', `${degrees(found.crank_deg!)}.`]
  if (found && props.seen.length && found.positions.length > 1)
    return ['It may stand in ', `${found.positions.length} places.`]
  return ['What do you ', 'see?']
})
const next = computed(() => {
  const { found } = props
  if (!found?.known) return ''
  const stop = found.stop >= 0 ? props.view.state.plan?.stops[found.stop] : undefined
  if (!stop) return ''
  if (!found.turn) return `That is stop ${found.stop + 1}: ${stop.valves.join(' and ')} may be read.`
  const { how, until } = found.instruction!
  return `Nearest stop. ${how} until ${until}.`
})

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

// With ten cylinders and more a 1 waits a moment for its second digit.
const secondDigit = 700
let waits = 0
const number = (n: number) => props.view.engine.firing_order.includes(n)
function one() {
  clearTimeout(waits)
  waits = 0
  emit('cylinder', 1)
}
onUnmounted(() => clearTimeout(waits))

function key(k: string): boolean {
  let cylinder = /^\d$/.test(k) ? Number(k) : -1
  if (waits && number(10 + cylinder) && cylinder >= 0) {
    clearTimeout(waits)
    waits = 0
    cylinder += 10
  } else if (waits) one()
  if (cylinder === 1 && number(10)) {
    waits = window.setTimeout(one, secondDigit)
    return true
  }
  if (k === 'Escape' || k === 'w' || k === 'W') emit('cancel')
  else if (k === 'Enter' && ready.value) emit('go')
  else if (k === 'm' || k === 'M') emit('mark', marks.value[0] ?? 0)
  else if (number(cylinder)) emit('cylinder', cylinder)
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
    <div ref="body" class="body">
      <div class="sights d-grid ga-2" role="group" aria-label="Marks and signs">
        <VBtn
          v-for="(m, i) in marks"
          :key="m"
          class="sight justify-start py-1 px-2"
          :class="{ on: marked(m) }"
          :aria-pressed="marked(m)"
          @click="emit('mark', m)"
        >
          <SightGlyph what="mark" />
          <span>{{ m === 0 ? 'TDC mark' : `${degrees(m)} mark` }} at the pointer <kbd v-if="i === 0">M</kbd></span>
        </VBtn>
        <VBtn
          v-for="s in view.engine.signs"
          :key="s.id"
          class="sight justify-start py-1 px-2"
          :class="{ on: signed(s.id) }"
          :aria-pressed="signed(s.id)"
          @click="emit('sign', s.id)"
        >
          <SightGlyph what="sign" />
          <span>{{ capital(s.where) }}: {{ s.text }}<small v-if="s.doubtful"> – in doubt</small></span>
        </VBtn>
      </div>
      <div v-radios class="sights d-grid ga-2" role="radiogroup" aria-label="What is seen of a cylinder or a valve">
        <VBtn
          v-for="w in sights"
          :key="w"
          role="radio"
          class="sight justify-start py-1 px-2"
          :class="{ on: looking === w }"
          :aria-checked="looking === w"
          @click="emit('look', w)"
        >
          <SightGlyph :what="w" />
          <span>{{ sightTitle[w] }}</span>
        </VBtn>
      </div>
      <div ref="which" class="which" role="group" :aria-label="`Which one: ${sightTitle[looking]}`">
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
      <ul v-if="seen.length" class="seen">
        <li v-for="s in seen" :key="says(s)">
          <span>{{ says(s) }}</span>
          <VBtn size="small" :aria-label="`Remove: ${says(s)}`" @click="emit('drop', s)"> Remove </VBtn>
        </li>
      </ul>
      <VAlert v-if="trouble">{{ trouble }}</VAlert>
      <VAlert v-if="found?.conflict">{{ found.conflict }}</VAlert>
      <VAlert v-for="d in found?.doubts" :key="d" role="note">{{ d }}</VAlert>
      <VAlert v-if="found?.one_turn_out" class="out fs-24 lh-tight">{{ found.one_turn_out }}</VAlert>
      <template v-if="found && !found.known && seen.length && found.tell_apart.length">
        <p class="mx-how">To tell them apart, look: which of these do you see?</p>
        <div class="marks d-grid ga-2">
          <VBtn v-for="q in found.tell_apart.slice(0, 4)" :key="says(q.look_at)" @click="emit('add', q.look_at)">
            {{ says(q.look_at) }}
          </VBtn>
        </div>
      </template>
      <p v-else-if="found && !found.known && seen.length && !found.conflict" class="mx-how">
        That leaves {{ degrees(found.positions.reduce((n, p) => n + ((p.to_deg - p.from_deg + 720) % 720), 0)) }} of the
        cycle: say one thing more.
      </p>
    </div>
    <footer class="foot d-grid ga-2 px-0 pt-1 pb-4">
      <div v-if="ready" class="answer d-grid ga-1 fs-22 lh-tight">
        <p v-if="found!.settable.length">
          May be set now: <b class="brass">{{ found!.settable.join(', ') }}</b>
        </p>
        <p v-else>No valve is clear enough here.</p>
        <p>{{ next }}</p>
      </div>
      <div class="do d-flex ga-2">
        <VBtn @click="emit('cancel')">Back <kbd>Esc</kbd></VBtn>
        <VBtn class="go" variant="flat" :disabled="!ready" @click="emit('go')"> Go on from here <kbd>Enter</kbd> </VBtn>
      </div>
    </footer>
  </section>
</template>

<style scoped>
.sights {
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
}

.sight {
  --v-btn-height: 64px;
}

.sight :deep(.v-btn__content) {
  gap: 10px;
  justify-content: start;
  line-height: 1.2;
  text-align: left;
}

.which {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.which .v-btn {
  min-width: 60px;
}

.body {
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
  overflow-y: auto;
}

.body > * {
  flex: none;
}

h2 {
  font-size: clamp(28px, 2.9vw, 40px);
}

em {
  font-style: normal;
}

.marks {
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
}

.sights .on,
.which .on {
  border-color: var(--brass);
  background: var(--wash);
  box-shadow: inset 0 0 0 1px var(--brass);
}

.seen {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.seen li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 6px 4px 14px;
  border-left: 6px solid var(--brass);
  background: var(--panel);
  font-size: 21px;
}

.seen span::first-letter {
  text-transform: uppercase;
}

.foot {
  flex: none;
}

.do .v-btn {
  min-height: 68px;
}

.go {
  flex: 1;
  font-size: 22px;
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

  .sight {
    padding: 4px 6px;
    font-size: 16px;
  }

  .sight :deep(.glyph) {
    width: 34px;
  }

  .sight :deep(.v-btn__content) {
    gap: 6px;
  }
}
</style>
