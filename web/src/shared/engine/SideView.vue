<script setup lang="ts">
import { computed } from 'vue'
import type { ValveView, Verdict } from '@/shared/api/client'
import { liftAt } from './headLayout'
import { camLift, camOutline, moves, peakOf, spring, type Picture } from './sideView'

const props = defineProps<{
  valve: ValveView
  gear: Picture
  /** null: where the crank stands is not known. */
  crank: number | null
  /** Far enough from the ramps to be read or set. */
  settable: boolean
  /** Nothing is told of where it may be set. */
  untold?: boolean
  /** What is known of its gap. */
  verdict: Verdict | null
  /** The leaf in hand, as it is called; empty: none. */
  leaf: string
}>()

/** Where the parts of each train stand: the cam and its base circle, the valve's axis and the tip of its stem when shut. */
const places = {
  rocker: { cam: { x: 74, y: 234, r: 32 }, valve: 206, tip: 158 },
  pushrod: { cam: { x: 74, y: 250, r: 22 }, valve: 206, tip: 146 },
  finger: { cam: { x: 138, y: 102, r: 30 }, valve: 206, tip: 178 },
  bucket: { cam: { x: 140, y: 100, r: 30 }, valve: 140, tip: 176 },
  tappet: { cam: { x: 130, y: 242, r: 28 }, valve: 130, tip: 124 },
}
const place = computed(() => places[props.gear.train || 'rocker'])
const open = computed(() => (props.crank === null ? 0 : liftAt(props.valve.lift, props.crank)))
const shut = computed(() => open.value < 0.004)
// The gap is drawn many times its size, narrower where it is tight and wider where it is loose.
const gap = computed(() => ({ tight: 7, loose: 21, in: 14, undecided: 14 })[props.verdict ?? 'undecided'])
const at = computed(() => moves(props.gear, open.value, gap.value))
const nose = computed(() => camOutline(props.valve.lift, place.value.cam.r, camLift(props.gear, gap.value)))
/** At most lift the cam under the follower points its nose up, the one over it down. */
const turned = computed(() => {
  const over = ['finger', 'bucket'].includes(props.gear.train) ? 180 : 0
  return over + ((props.crank ?? 0) - peakOf(props.valve.lift)) / 2
})

/** The height of what meets the valve's tip, of what meets the cam, and of the stem's tip. */
const meets = computed(() => {
  const { train, at_cam } = props.gear
  const { cam, tip } = place.value
  const stem = tip + at.value.valve * (train === 'tappet' ? -1 : 1)
  const touch = cam.y + (['finger', 'bucket'].includes(train) ? 1 : -1) * (cam.r + at.value.cam)
  if (train === 'tappet') return { stem, touch, end: stem + at.value.gap }
  if (train === 'bucket' || (train === 'finger' && at_cam)) return { stem, touch: touch + at.value.gap, end: stem }
  if (at_cam) return { stem, touch: touch - at.value.gap, end: stem }
  return { stem, touch, end: stem - at.value.gap }
})

/** Where the leaf goes in: the middle of the gap on the base circle. */
const slot = computed(() => {
  const { train, at_cam } = props.gear
  const { cam, valve, tip } = place.value
  if (train === 'tappet') return { x: valve, y: tip + gap.value / 2, from: 1 }
  if (!at_cam) return { x: valve, y: tip - gap.value / 2, from: 1 }
  const over = train === 'rocker' ? -1 : 1
  return { x: cam.x, y: cam.y + over * (cam.r + gap.value / 2), from: over }
})
const leafShown = computed(() => props.leaf !== '' && props.crank !== null && props.settable && shut.value)
/** A leaf too thick for the gap stops at its mouth. */
const reach = computed(() => (props.verdict === 'tight' ? -20 : 16))
const leafEnd = computed(() => (slot.value.from > 0 ? 296 : 4))
const leafFrom = computed(() => slot.value.x - slot.value.from * reach.value)

const words = computed(() => {
  if (props.crank === null) return 'crank not known'
  if (!shut.value) return open.value > 0.95 ? 'fully down' : 'open'
  if (props.untold) return 'shut'
  return props.settable ? 'on the base circle' : 'shut, near its ramp'
})
const name = computed(
  () => `${props.valve.name} from the side: ${words.value}. The leaf goes between ${props.gear.between}.`,
)
</script>

<template>
  <svg class="side d-block w-100 h-100" viewBox="0 0 300 320" role="img" :aria-label="name">
    <text class="title f-ink fs-26 font-weight-bold" x="6" y="24">{{ valve.name }}</text>
    <text class="state f-quiet fs-20 anchor-end" :class="{ ready: settable && shut && crank !== null }" x="294" y="24">
      {{ words }}
    </text>

    <g v-if="gear.train === 'tappet'">
      <path class="s-quiet sw-5" :d="`M60 62H${place.valve - 34}M${place.valve + 34} 62H200`" />
      <path class="casting f-line" :d="`M${place.valve - 46} 78h34v16h-34zM${place.valve + 12} 78h34v16h-34z`" />
      <path class="spring f-none s-quiet cap-round sw-3" :d="spring(place.valve, 94, meets.stem - 12, 20)" />
      <path
        class="part f-panel s-ink join-round sw-2"
        :d="`M${place.valve - 5} ${meets.stem}V${meets.stem - 62}L${place.valve - 34} ${meets.stem - 74}H${place.valve + 34}L${place.valve + 5} ${meets.stem - 62}V${meets.stem}Z`"
      />
      <path class="part f-panel s-ink join-round sw-2" :d="`M${place.valve - 24} ${meets.stem - 12}h48v6h-48z`" />
      <path
        class="part f-panel s-ink join-round sw-2"
        :d="`M${place.valve - 7} ${meets.end + 8}h14V${meets.touch - 8}h-14z`"
      />
      <path class="setter join-round sw-2 f-wash s-brass" :d="`M${place.valve - 20} ${meets.end}h40v12h-40z`" />
      <path
        class="nut f-panel join-round sw-2 s-brass"
        :d="`M${place.valve - 20} ${meets.end + 16 + (14 - gap)}h40v9h-40z`"
      />
      <path
        class="part f-panel s-ink join-round sw-2"
        :d="`M${place.valve - 14} ${meets.end + 26 + (14 - gap)}h28V${meets.touch - 8}h18v8h-64v-8h18z`"
      />
    </g>
    <g v-else>
      <path
        class="s-quiet sw-5"
        :d="`M${place.valve - 70} 292H${place.valve - 34}M${place.valve + 34} 292H${place.valve + 70}`"
      />
      <path class="casting f-line" :d="`M${place.valve - 48} 244h36v18h-36zM${place.valve + 12} 244h36v18h-36z`" />
      <path
        class="spring f-none s-quiet cap-round sw-3"
        :d="spring(place.valve, meets.stem + (gear.train === 'bucket' ? 6 : 16), 244, 24)"
      />
      <path
        class="part f-panel s-ink join-round sw-2"
        :d="`M${place.valve - 5} ${meets.stem}V${280 + at.valve}L${place.valve - 34} ${292 + at.valve}H${place.valve + 34}L${place.valve + 5} ${280 + at.valve}V${meets.stem}Z`"
      />
      <path
        v-if="gear.train !== 'bucket'"
        class="part f-panel s-ink join-round sw-2"
        :d="`M${place.valve - 28} ${meets.stem + 10}h56v7h-56z`"
      />
    </g>

    <g v-if="gear.train === 'bucket'">
      <path class="part f-panel s-ink join-round sw-2" :d="`M94 ${meets.stem - 22}h92v58h-12v-42h-68v42h-12z`" />
      <path class="setter join-round sw-2 f-wash s-brass" :d="`M104 ${meets.touch}h72V${meets.stem - 22}h-72z`" />
    </g>
    <g v-else-if="gear.train === 'finger'">
      <path class="casting f-line" d="M36 236h72v26h-72z" />
      <path class="setter join-round sw-2 f-wash s-brass" d="M64 196h16v44h-16z" />
      <path class="nut f-panel join-round sw-2 s-brass" d="M54 222h36v12h-36z" />
      <path class="limb f-none s-edge cap-round join-round" :d="`M72 184L206 ${meets.end - 10}`" />
      <circle class="part f-panel s-ink join-round sw-2" :cx="place.cam.x" :cy="meets.touch + 17" r="17" />
      <circle class="setter join-round sw-2 f-wash s-brass" cx="72" cy="190" r="12" />
    </g>
    <g v-else-if="gear.train === 'rocker'">
      <path
        class="limb f-none s-edge cap-round join-round"
        :d="`M74 ${meets.touch - 14}L140 108L206 ${132 + meets.end - place.tip + (gear.at_cam ? 0 : gap)}`"
      />
      <circle class="part f-panel s-ink join-round sw-2" :cx="place.cam.x" :cy="meets.touch - 13" r="13" />
      <circle class="part f-panel s-ink join-round sw-2" cx="140" cy="108" r="17" />
      <g v-if="gear.setter === 'eccentric'">
        <circle class="setter join-round sw-2 f-wash s-brass" cx="206" :cy="meets.end - 19" r="19" />
        <circle class="hole f-ground s-ink sw-2" cx="197" :cy="meets.end - 25" r="5" />
        <circle class="hole f-ground s-ink sw-2" cx="211" :cy="meets.end - 17" r="7" />
      </g>
      <g v-else>
        <path
          class="setter join-round sw-2 f-wash s-brass"
          :d="`M199 ${meets.end - 62}h14V${meets.end - 6}l-7 6l-7-6z`"
        />
        <path
          class="nut f-panel join-round sw-2 s-brass"
          :d="`M190 ${meets.end - 54 + (gear.at_cam ? 0 : gap - 14)}h32v12h-32z`"
        />
      </g>
    </g>
    <g v-else-if="gear.train === 'pushrod'">
      <path class="part f-panel s-ink join-round sw-2" :d="`M71 ${112 - at.cam}h6V${meets.touch - 40}h-6z`" />
      <path
        class="part f-panel s-ink join-round sw-2"
        :d="`M60 ${meets.touch - 44}h28V${meets.touch - 6}h12v6h-52v-6h12z`"
      />
      <g v-if="gear.setter === 'tappet-nuts'">
        <path class="setter join-round sw-2 f-wash s-brass" :d="`M58 ${meets.touch - 66}h32v10h-32z`" />
        <path class="nut f-panel join-round sw-2 s-brass" :d="`M58 ${meets.touch - 54}h32v8h-32z`" />
      </g>
      <path v-if="gear.setter === 'stud-nut'" class="part f-panel s-ink join-round sw-2" d="M135 56h10v70h-10z" />
      <path class="limb f-none s-edge cap-round join-round" :d="`M74 ${112 - at.cam}L140 98L206 ${meets.end - 12}`" />
      <path v-if="gear.setter === 'stud-nut'" class="setter join-round sw-2 f-wash s-brass" d="M122 74h36v22h-36z" />
      <circle v-else class="part f-panel s-ink join-round sw-2" cx="140" cy="98" r="16" />
      <g v-if="gear.setter === 'rod-screw'">
        <path class="setter join-round sw-2 f-wash s-brass" :d="`M67 ${72 - at.cam}h14v50h-14z`" />
        <path class="nut f-panel join-round sw-2 s-brass" :d="`M58 ${84 - at.cam}h32v11h-32z`" />
      </g>
    </g>

    <g :transform="`translate(${place.cam.x} ${place.cam.y})`">
      <path
        v-if="crank !== null"
        class="cam s-ink join-round sw-2 f-sunk"
        :d="nose"
        :transform="`rotate(${turned.toFixed(2)})`"
      />
      <circle v-else class="cam unknown s-ink join-round sw-2 f-sunk" :r="place.cam.r" />
      <circle class="f-ground s-ink sw-2" r="8" />
    </g>

    <g v-if="leafShown" class="leaf">
      <path class="s-brass" :d="`M${leafFrom} ${slot.y}H${leafEnd}`" />
      <text
        class="f-brass in-figures fs-24 font-weight-bold"
        :x="leafEnd"
        :y="slot.y - 13"
        :text-anchor="slot.from > 0 ? 'end' : 'start'"
      >
        {{ leaf }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.side {
  font-family: var(--words);
}

.state.ready {
  fill: var(--in);
  font-weight: 700;
}

/* Where its lobe points is not known. */
.unknown {
  stroke-dasharray: 6 5;
}

.limb {
  stroke-width: 22;
}

.leaf path {
  stroke-width: 10;
}
</style>
