<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobView } from '@/shared/api/client'

const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ sign: [by: string] }>()

const checks = [
  'All tools and leaves accounted for',
  'Socket or handle off the crank',
  'Faces clean and dry, nothing fallen into plug holes or timing case',
]
const ticked = ref(checks.map(() => false))
const by = ref(props.view.mechanic)
const ready = computed(() => ticked.value.every(Boolean) && by.value.trim() !== '')
const left = computed(() => props.view.state.valves.filter((v) => v.left))

const tick = (i: number) => (ticked.value = ticked.value.map((t, n) => (n === i ? !t : t)))

function key(k: string): boolean {
  const i = Number(k) - 1
  if (i in checks) tick(i)
  else if (k === 'Enter') {
    if (ready.value) emit('sign', by.value.trim())
  } else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="signing">
    <p v-if="left.length" class="left">
      Left out of limits: {{ left.map((v) => `${v.name} (${v.left})`).join(', ') }}.
    </p>
    <button
      v-for="(c, i) in checks"
      :key="c"
      type="button"
      role="checkbox"
      class="check"
      :aria-checked="ticked[i]"
      @click="tick(i)"
    >
      <span class="box" :class="{ on: ticked[i] }" aria-hidden="true">{{ ticked[i] ? '✓' : '' }}</span>
      <span>{{ c }}</span>
      <kbd>{{ i + 1 }}</kbd>
    </button>
    <VTextField v-model="by" label="Signed by" maxlength="100" hide-details />
    <button class="mx-btn primary large go" type="button" :disabled="!ready" @click="emit('sign', by.trim())">
      Sign the job <kbd>Enter</kbd>
    </button>
  </div>
</template>

<style scoped>
.signing {
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 14px;
}

.check {
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 72px;
  padding: 8px 16px;
  border: 2px solid var(--line);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink);
  font: inherit;
  font-size: 20px;
  line-height: 1.25;
  text-align: left;
  cursor: pointer;
}

.check kbd {
  margin-left: auto;
}

.box {
  display: grid;
  flex: none;
  place-items: center;
  width: 40px;
  height: 40px;
  border: 3px solid var(--quiet);
  font-size: 26px;
  line-height: 1;
}

.box.on {
  border-color: var(--in);
  background: var(--in);
  color: var(--ground);
}

.left {
  padding: 10px 14px;
  border-left: 8px solid var(--tight);
  background: var(--panel);
}

.signing > .v-input {
  flex: none;
}

.go {
  margin-top: auto;
}
</style>
