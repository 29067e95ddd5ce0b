<script setup lang="ts">
import type { PlacedBore } from './headLayout'

/** A cylinder on the drawing of the head: its number, a word about it with a ring around its valves, and a place to tap. */
defineProps<{
  bore: PlacedBore
  /** The front of the engine lies towards whoever looks. */
  near: boolean
  note?: { text: string; strong: boolean }
  pickable?: boolean
}>()
defineEmits<{ pick: [] }>()
</script>

<template>
  <g class="cylinder" :class="note?.strong ? 'strong' : note ? 'noted' : ''">
    <rect
      v-if="note"
      class="bore f-none s-edge sw-2 cap-round"
      :x="bore.left"
      :y="bore.top"
      :width="bore.width"
      :height="bore.height"
      rx="26"
    />
    <text class="number" :x="bore.x" :y="bore.y">{{ bore.number }}</text>
    <text v-if="note" class="note f-quiet fs-16" :class="{ near }" :x="bore.word" :y="bore.foot">{{ note.text }}</text>
    <g
      v-if="pickable"
      class="tap cursor-pointer"
      role="button"
      tabindex="0"
      :aria-label="`Cylinder ${bore.number}${note ? `, ${note.text}` : ''}`"
      @click="$emit('pick')"
      @keydown.enter.stop.prevent="$emit('pick')"
      @keydown.space.stop.prevent="$emit('pick')"
    >
      <rect class="s-edge sw-2" :x="bore.x - 38" :y="bore.y - 46" width="76" height="72" rx="8" />
    </g>
  </g>
</template>

<style scoped>
.number,
.note {
  text-anchor: middle;
}

.note.near {
  text-anchor: end;
}

.tap rect {
  fill: transparent;
}

.tap:focus-visible {
  outline: none;
}

.tap:focus-visible rect {
  stroke: var(--brass);
  stroke-width: 4;
}

.number {
  fill: var(--quiet);
  font-size: 32px;
  font-weight: 700;
}

.bore {
  stroke-dasharray: 3 8;
}

.strong .bore {
  fill: var(--wash);
  stroke: var(--brass);
  stroke-width: 2.5;
  stroke-dasharray: none;
}

.strong :is(.number, .note) {
  fill: var(--brass);
}

.strong .note {
  font-weight: 700;
}
</style>
