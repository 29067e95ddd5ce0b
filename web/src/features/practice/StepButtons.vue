<script setup lang="ts">
/** Four buttons that turn something by so many degrees, one way and the other. They are drawn once, while what they turn moves. */
const props = defineProps<{
  /** What is turned, as the buttons are called: Turn the crank. */ what: string
  /** Marks of turning back and on. */ marks: readonly [string, string]
  /** In words, where it is not forwards and back by a sign. */ ways?: readonly [string, string]
  disabled?: boolean
}>()
defineEmits<{ turn: [byDeg: number] }>()
const steps = [-30, -5, 5, 30]
const called = (d: number) =>
  props.ways ? `${props.what} ${Math.abs(d)} degrees ${props.ways[d > 0 ? 1 : 0]}` : `${props.what} by ${d} degrees`
</script>

<template>
  <div class="by d-grid ga-1" role="group" :aria-label="what">
    <VBtn
      v-for="d in steps"
      :key="d"
      size="small"
      :disabled="disabled"
      :aria-label="called(d)"
      @click="$emit('turn', d)"
      >{{ marks[d > 0 ? 1 : 0] }}{{ Math.abs(d) }}°</VBtn
    >
  </div>
</template>

<style scoped>
.by {
  grid-template-columns: repeat(4, minmax(0, 1fr));
}

.by :deep(.v-btn) {
  min-width: 0;
  padding: 0;
}
</style>
