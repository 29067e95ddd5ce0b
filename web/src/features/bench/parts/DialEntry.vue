<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { decimal, slip } from '@/shared/decimal'
import { mine } from '@/shared/mine'
import { useInstruments } from '@/shared/useInstruments'

/** Readings by a dial indicator: those of this round, to be taken back, and a new one as a number with its doubt. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{
  round: Schemas['Reading'][]
  /** What the indicator's button took at this valve; null: nothing. */ taken: { mm: number } | null
}>()
const emit = defineEmits<{ withdraw: [index: number]; dial: [gap: number, doubt: number] }>()

const length = mine('length')
const text = ref('')
const doubtText = ref(length.bare(0.01))
const said = ref(false)
const gapSlip = computed(() => (said.value ? slip(text.value) : ''))
const doubtSlip = computed(() => (said.value ? slip(doubtText.value) : ''))
function say() {
  said.value = true
  const [gap, doubt] = [decimal(text.value), decimal(doubtText.value)]
  if (gap === null || doubt === null) return
  emit('dial', length.kept(gap), length.kept(doubt))
  said.value = false
  open.value = false
  text.value = ''
}
/** The button of the dial indicator at the engine fills the figure in; it is recorded by hand. */
const instruments = useInstruments()
const indicator = computed(() => instruments.of('dial'))
watch(
  () => props.taken,
  (taken) => {
    if (taken) text.value = length.bare(Math.abs(taken.mm))
  },
  { immediate: true },
)
const dials = computed(() => props.round.map((x, i) => ({ ...x, i })).filter((x) => x.dial_mm != null))
</script>

<template>
  <div v-if="open || dials.length" class="dial">
    <span v-for="d in dials" :key="d.i" class="read"
      >dial <b class="figure">{{ length.bare(d.dial_mm!) }}</b>
      <VBtn
        size="small"
        :aria-label="`Remove the dial reading ${length.bare(d.dial_mm!)}`"
        @click="emit('withdraw', d.i)"
      >
        Remove
      </VBtn></span
    >
    <form v-if="open" class="enter fills" @submit.prevent="say">
      <VTextField
        v-model="text"
        label="Gap by dial gauge"
        :suffix="length.unit()"
        inputmode="decimal"
        :error-messages="gapSlip"
        hide-details="auto"
        density="compact"
        autofocus
      />
      <span v-if="indicator" class="quiet fs-16"
        >the indicator shows <b class="figure">{{ length.bare(indicator.value) }}</b>, its button fills it in</span
      >
      <VTextField
        v-model="doubtText"
        label="±"
        :suffix="length.unit()"
        inputmode="decimal"
        :error-messages="doubtSlip"
        hide-details="auto"
        density="compact"
      />
      <VBtn size="small" type="submit">Record</VBtn>
    </form>
  </div>
</template>

<style scoped>
.dial,
.enter,
.read {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}

.dial {
  justify-content: flex-end;
  padding-top: 6px;
}

.enter :deep(.v-text-field) {
  min-width: 96px;
}
</style>
