<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useBench } from '../useBench'

/** Set, locked and read again, told by one tap. It is never on Enter, and asks back where nobody can have done it yet. */
const props = defineProps<{ tell: Schemas['Tell']; valve: string }>()
const { act, settling } = useBench()

/** When its verdict came up. */
let since = 0
const asking = ref(false)
watch(
  () => props.valve,
  () => {
    since = Date.now()
    asking.value = false
  },
  { immediate: true },
)

function say(asked: boolean) {
  if (settling.value) return
  if (!asked && Date.now() - since < props.tell.after_s * 1000) {
    asking.value = true
    return
  }
  const { leaves_mm, angled, by } = props.tell
  act({ kind: 'set_told', valve: props.valve, leaves_mm, angled, by: by || undefined, asked: asked || undefined })
}
</script>

<template>
  <div class="d-grid ga-2">
    <VBtn v-if="!asking" class="tell fs-20" @click="say(false)">{{ tell.says }}</VBtn>
    <template v-else>
      <p class="fs-20" role="status">{{ tell.asks }}</p>
      <div class="d-flex flex-wrap ga-2">
        <VBtn class="tell fills" @click="say(true)">Yes, all three</VBtn>
        <VBtn @click="asking = false">Not yet</VBtn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.tell {
  border-color: var(--brass);
}
</style>
