<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { octagon } from './shapes'

const props = defineProps<{ banks: Schemas['BankView'][]; name: string }>()

const pitch = 24
const rows = computed(() =>
  [...props.banks]
    .sort((a, b) => a.angle_deg - b.angle_deg)
    .flatMap((b, bank) =>
      [...b.rows].sort((x, y) => (x.side === y.side ? 0 : x.side === 'right' ? -1 : 1)).map((r) => ({ bank, ...r })),
    ),
)
const width = computed(() => Math.max(...rows.value.map((r) => r.valves.length)) * pitch + 34)
const y = (i: number) => 16 + i * pitch + rows.value[i]!.bank * 12
const height = computed(() => (rows.value.length ? y(rows.value.length - 1) + 16 : 32))
</script>

<template>
  <svg
    class="d-block w-100 h-100 f-none s-quiet sw-2"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="`Rows of ${name}: ${rows.map((r) => r.valves.join(' ')).join('; ')}`"
  >
    <circle class="front s-edge" cx="11" :cy="height / 2" r="7" />
    <g v-for="(r, i) in rows" :key="i">
      <template v-for="(v, n) in r.valves" :key="v">
        <circle v-if="v.startsWith('I')" class="intake s-ink" :cx="34 + n * pitch" :cy="y(i)" r="9" />
        <path v-else class="exhaust" :d="octagon(9)" :transform="`translate(${34 + n * pitch} ${y(i)})`" />
      </template>
    </g>
  </svg>
</template>
