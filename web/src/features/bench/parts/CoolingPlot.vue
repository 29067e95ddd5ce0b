<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { clock } from '@/shared/units'

const heat = mine('temperature')

const props = defineProps<{ readings: Schemas['HeatReading'][]; cooling?: Schemas['Cooling']; gate: number | null }>()

const left = 52
const right = 472
const top = 14
const bottom = 110
const ms = (iso: string) => new Date(iso).getTime()
const all = computed(() => [...props.readings, ...(props.cooling?.curve ?? [])])
const from = computed(() => Math.min(...all.value.map((r) => ms(r.at))))
const to = computed(() => Math.max(from.value + 60_000, ...all.value.map((r) => ms(r.at))))
const low = computed(
  () => Math.min(props.gate ?? 100, ...props.readings.map((r) => Math.min(r.engine_c, r.ambient_c))) - 4,
)
const high = computed(() => Math.max(props.gate ?? 0, ...all.value.map((r) => r.engine_c)) + 4)
const x = (iso: string) => left + ((ms(iso) - from.value) / (to.value - from.value)) * (right - left)
const y = (c: number) => bottom - ((c - low.value) / (high.value - low.value)) * (bottom - top)
const line = computed(() =>
  (props.cooling?.curve ?? []).map((r, i) => `${i ? 'L' : 'M'}${x(r.at)} ${y(r.engine_c)}`).join(''),
)
</script>

<template>
  <svg
    class="plot d-block w-100 in-figures"
    viewBox="0 0 500 140"
    role="img"
    :aria-label="`Engine temperature against time${gate === null ? '' : `, the gate at ${heat.say(gate)}`}`"
  >
    <line class="s-line sw-2" :x1="left" :x2="right" :y1="bottom" :y2="bottom" />
    <g v-if="gate !== null">
      <rect class="cold f-sunk" :x="left" :y="y(gate)" :width="right - left" :height="Math.max(0, bottom - y(gate))" />
      <line class="gate s-in sw-3" :x1="left" :x2="right" :y1="y(gate)" :y2="y(gate)" />
      <text class="f-quiet fs-16 anchor-end" :x="left - 8" :y="y(gate) + 5">{{ Math.round(heat.own(gate)) }}°</text>
    </g>
    <path class="line f-none s-quiet sw-3" :d="line" />
    <circle v-for="r in readings" :key="r.at" class="dot f-brass" :cx="x(r.at)" :cy="y(r.engine_c)" r="6" />
    <text class="f-quiet fs-16 anchor-end" :x="left - 8" :y="top + 8">{{ Math.round(heat.own(high - 4)) }}°</text>
    <text class="time f-quiet fs-16 anchor-middle" :x="left" :y="bottom + 22">
      {{ clock(new Date(from).toISOString()) }}
    </text>
    <g v-if="cooling?.ready_at">
      <line class="ready s-brass sw-2" :x1="x(cooling.ready_at)" :x2="x(cooling.ready_at)" :y1="top" :y2="bottom" />
      <text class="time strong font-weight-bold fs-16 anchor-middle f-brass" :x="x(cooling.ready_at)" :y="bottom + 22">
        {{ clock(cooling.ready_at) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.line {
  stroke-dasharray: 6 5;
}
</style>
