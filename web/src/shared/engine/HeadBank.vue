<script setup lang="ts">
import type { PlacedBank } from './headLayout'

/** A bank's casting, with what lies on its sides; and the bank's name, where there are several. */
defineProps<{
  bank: PlacedBank
  /** The front of the engine lies towards whoever looks: what is written lies along the bank. */
  near: boolean
  several: boolean
}>()
</script>

<template>
  <g>
    <rect
      class="casting f-panel s-line sw-2"
      :x="bank.x"
      :y="bank.y + 1"
      :width="bank.width"
      :height="bank.height - 2"
      rx="10"
    />
    <g v-if="near" :transform="`translate(${bank.x} ${bank.y + bank.height}) rotate(-90)`">
      <text v-if="bank.top" class="side f-quiet fs-16" x="4" y="-9">{{ bank.top }}</text>
      <text v-if="bank.bottom" class="side f-quiet fs-16" x="4" :y="bank.width + 20">{{ bank.bottom }}</text>
      <text v-if="several" class="side bank f-quiet fs-16 anchor-end" :x="bank.height - 4" :y="bank.top ? -9 : 22">
        {{ bank.name }}
      </text>
    </g>
    <template v-else>
      <text v-if="bank.top" class="side f-quiet fs-16" :x="bank.x + 4" :y="bank.y - 9">{{ bank.top }}</text>
      <text v-if="bank.bottom" class="side f-quiet fs-16" :x="bank.x + 4" :y="bank.y + bank.height + 20">{{
        bank.bottom
      }}</text>
      <text
        v-if="several"
        class="side bank f-quiet fs-16 anchor-end"
        :x="bank.x + bank.width - 4"
        :y="bank.top ? bank.y - 9 : bank.y + 22"
      >
        {{ bank.name }}
      </text>
    </template>
  </g>
</template>
