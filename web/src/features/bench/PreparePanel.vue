<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobView } from '@/shared/api/client'
import NumberPad from './NumberPad.vue'

const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ prepared: [engine: number, ambient: number] }>()

const fields = ['Engine', 'Around it'] as const
const text = ref(['', ''])
const at = ref(0)
const ready = computed(() => text.value.every((t) => /^-?\d+$/.test(t)))
const limit = computed(() =>
  props.view.card.state === 'cold'
    ? `Cold figures: the engine at or below ${props.view.cold_limit_c} °C.`
    : `Hot figures: the engine at ${props.view.hot_from_c} °C or more.`,
)

function go() {
  if (at.value === 0 && text.value[0] && !text.value[1]) at.value = 1
  else if (ready.value) emit('prepared', Number(text.value[0]), Number(text.value[1]))
}

function key(k: string): boolean {
  const now = text.value[at.value]!
  const put = (t: string) => (text.value = text.value.map((x, i) => (i === at.value ? t : x)))
  if (/^\d$/.test(k) && now.replace('-', '').length < 3) put(now + k)
  else if (k === '-') put(now.startsWith('-') ? now.slice(1) : `-${now}`)
  else if (k === 'Backspace') put(now.slice(0, -1))
  else if (k.startsWith('Arrow')) at.value = 1 - at.value
  else if (k === 'Enter') go()
  else return /^\d$/.test(k)
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="prepare">
    <ul class="safe">
      <li>Out of gear or in park, wheels chocked, battery off where the work passes live connectors.</li>
      <li>Key well away: keyless, stop-start and hybrid cars can crank by themselves.</li>
    </ul>
    <div class="fields">
      <button v-for="(f, i) in fields" :key="f" type="button" class="field" :class="{ on: at === i }" @click="at = i">
        <span class="quiet">{{ f }}</span>
        <span class="figure">{{ text[i] || '–' }}<small> °C</small></span>
      </button>
    </div>
    <NumberPad @key="key" />
    <p class="quiet">{{ limit }} The maker’s book and local rules win over any figure here.</p>
    <button class="mx-btn primary large go" type="button" :disabled="!text[at]" @click="go">
      {{ ready ? 'Made safe, begin' : 'Next' }} <kbd>Enter</kbd>
    </button>
  </div>
</template>

<style scoped>
.prepare {
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 10px;
}

.safe {
  margin: 0;
  padding-left: 20px;
  color: var(--quiet);
  font-size: 16px;
  line-height: 1.3;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

.field {
  display: grid;
  padding: 8px 14px;
  border: 2px solid var(--line);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.field.on {
  border-color: var(--brass);
  box-shadow: inset 0 0 0 2px var(--brass);
}

.field .figure {
  font-size: 36px;
  font-weight: 700;
  line-height: 1.2;
}

.field small {
  font-size: 20px;
  font-weight: 400;
}

.go {
  margin-top: auto;
}
</style>
