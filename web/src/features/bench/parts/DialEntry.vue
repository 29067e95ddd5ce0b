<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { decimal, slip } from '@/shared/decimal'
import { mine } from '@/shared/mine'

/** Readings by a dial indicator: those of this round, to be taken back, and a new one as a number with its doubt. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ round: Schemas['Reading'][] }>()
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
