<script setup lang="ts">
import { computed, onUnmounted } from 'vue'
import type { Found, JobView, Sighting } from '@/shared/api/client'
import { degrees } from '@/shared/units'
import { seenWords } from '@/shared/words'

const props = defineProps<{ view: JobView; seen: Sighting[]; found: Found | null; trouble: string }>()
const emit = defineEmits<{
  mark: [deg: number]
  cylinder: [n: number]
  add: [s: Sighting]
  drop: [s: Sighting]
  go: []
  cancel: []
}>()

const marks = computed(() => props.view.engine.marks_deg)
const marked = (m: number) => props.seen.some((s) => s.what === 'mark' && s.mark_deg === m)
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
  <section class="find" aria-label="Where am I?">
    <h2 aria-live="polite">
      {{ headline[0] }}<em>{{ headline[1] }}</em>
    </h2>
    <p v-if="!seen.length" class="mx-how">
      Tap a cylinder’s number if it rocks, once more if both its rockers have play. Tap a valve: play, held open, fully
      down.
    </p>
    <div class="marks" role="group" aria-label="Pulley marks">
      <VBtn
        v-for="(m, i) in marks"
        :key="m"
        :class="{ on: marked(m) }"
        :aria-pressed="marked(m)"
        @click="emit('mark', m)"
      >
        {{ m === 0 ? 'TDC mark' : `${degrees(m)} mark` }} at the pointer <kbd v-if="i === 0">M</kbd>
      </VBtn>
    </div>
    <div class="marks cylinders" role="group" aria-label="Cylinders: rocking, then firing TDC">
      <VBtn
        v-for="n in [...view.engine.firing_order].sort((a, b) => a - b)"
        :key="n"
        class="figure"
        :class="{ on: seen.some((s) => s.cylinder === n) }"
        :aria-label="`Cylinder ${n}`"
        @click="emit('cylinder', n)"
      >
        {{ n }}
      </VBtn>
    </div>
    <ul v-if="seen.length" class="seen">
      <li v-for="s in seen" :key="`${s.what}${s.cylinder}${s.valve}${s.mark_deg}`">
        <span>{{ seenWords(s) }}</span>
        <VBtn size="small" :aria-label="`Remove: ${seenWords(s)}`" @click="emit('drop', s)"> Remove </VBtn>
      </li>
    </ul>
    <VAlert v-if="trouble">{{ trouble }}</VAlert>
    <VAlert v-if="found?.conflict">{{ found.conflict }}</VAlert>
    <VAlert v-if="found?.one_turn_out" class="out">{{ found.one_turn_out }}</VAlert>
    <template v-if="found && !found.known && seen.length && found.tell_apart.length">
      <p class="mx-how">To tell them apart, look: which of these do you see?</p>
      <div class="marks">
        <VBtn v-for="q in found.tell_apart.slice(0, 4)" :key="seenWords(q.look_at)" @click="emit('add', q.look_at)">
          {{ seenWords(q.look_at) }}
        </VBtn>
      </div>
    </template>
    <p v-else-if="found && !found.known && seen.length && !found.conflict" class="mx-how">
      That leaves {{ degrees(found.positions.reduce((n, p) => n + ((p.to_deg - p.from_deg + 720) % 720), 0)) }} of the
      cycle: say one thing more.
    </p>
    <div v-if="ready" class="answer">
      <p v-if="found!.settable.length">
        May be set now: <b>{{ found!.settable.join(', ') }}</b>
      </p>
      <p v-else>No valve is clear enough here.</p>
      <p>{{ next }}</p>
    </div>
    <footer class="do">
      <VBtn @click="emit('cancel')">Back <kbd>Esc</kbd></VBtn>
      <VBtn class="go" variant="flat" :disabled="!ready" @click="emit('go')"> Go on from here <kbd>Enter</kbd> </VBtn>
    </footer>
  </section>
</template>

<style scoped>
/* Where the drawing lies below, its cylinders can be tapped here. */
.marks.cylinders {
  display: none;
}

@media (width <= 1000px) {
  .marks.cylinders {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(60px, 1fr));
  }
}

.find {
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
  padding: 18px 22px 20px;
  overflow-y: auto;
}

h2 {
  font-size: clamp(28px, 2.9vw, 40px);
  line-height: 1.1;
}

em {
  color: var(--brass);
  font-style: normal;
}

.marks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 10px;
}

.marks .on {
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

.out {
  font-size: 24px;
  line-height: 1.2;
}

.answer {
  display: grid;
  gap: 6px;
  font-size: 22px;
  line-height: 1.25;
}

.answer b {
  color: var(--brass);
}

.do {
  display: flex;
  gap: 10px;
  margin-top: auto;
}

.do .v-btn {
  min-height: 68px;
}

.go {
  flex: 1;
  font-size: 22px;
}
</style>
