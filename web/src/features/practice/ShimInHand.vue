<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'

/** The shim of the valve in hand: taken out, read and measured, and another laid in. */
const props = defineProps<{
  valve: string
  shims: Schemas['ShimTray']
  take: () => Promise<Schemas['FoundShim'] | null>
}>()
const emit = defineEmits<{ fit: [mm: number] }>()
const found = ref<{ valve: string; shim: Schemas['FoundShim'] } | null>(null)
const bare = computed(() => props.shims.bare.includes(props.valve))
const sizes = computed(() => [
  ...props.shims.tray_mm.map((value) => ({ value, title: `${mm(value)} from the tray` })),
  ...props.shims.sizes_mm.map((value) => ({ value, title: mm(value) })),
])
const size = ref<number | null>(null)
watch(
  () => [props.valve, bare.value],
  () =>
    (size.value = found.value?.valve === props.valve ? found.value.shim.measured_mm : (props.shims.tray_mm[0] ?? 2.5)),
  { immediate: true },
)
async function out() {
  const shim = await props.take()
  if (shim) {
    found.value = { valve: props.valve, shim }
    size.value = shim.measured_mm
  }
}
function act() {
  if (!props.valve) return
  if (!bare.value) void out()
  else if (size.value !== null) emit('fit', size.value)
}
function other(by: 1 | -1) {
  const all = [...new Set(sizes.value.map((s) => s.value))].sort((a, b) => a - b)
  const at = all.indexOf(size.value ?? 0)
  size.value = all[Math.min(all.length - 1, Math.max(0, at + by))]!
}
defineExpose({ act, other })
</script>

<template>
  <section class="d-grid ga-2 align-content-center" aria-label="The shim">
    <p v-if="found?.valve === valve && bare" class="text-center" role="status">
      It says <b class="figure fs-24">{{ mm(found.shim.stamped_mm) }}</b>; by micrometer
      <b class="figure fs-24">{{ mm(found.shim.measured_mm) }}</b>
    </p>
    <template v-if="bare">
      <div class="d-flex ga-2 align-center justify-center">
        <VBtn size="small" aria-label="A thinner shim" @click="other(-1)">−</VBtn>
        <VSelect v-model="size" :items="sizes" label="Shim" density="compact" hide-details />
        <VBtn size="small" aria-label="A thicker shim" @click="other(1)">+</VBtn>
      </div>
      <VBtn variant="flat" :disabled="size === null" @click="act">{{ `Lay ${mm(size ?? 0)} in` }}</VBtn>
    </template>
    <VBtn v-else :disabled="!valve" @click="act">{{
      valve ? `Take the shim of ${valve} out` : 'No valve in hand'
    }}</VBtn>
  </section>
</template>
