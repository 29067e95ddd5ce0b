<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { decimal } from '@/shared/decimal'
import NumberField from '@/shared/NumberField.vue'
import NumberPad from './NumberPad.vue'

/** Which shim is under a valve, by micrometer and as stamped. */
const props = defineProps<{
  valve: string
  /** A size that was written down is put right: nothing is taken out for it. */ correcting: boolean
  camsOut: boolean
  /** Its lobe presses on it where the crank stands. */ away: boolean
}>()
const emit = defineEmits<{ put: [shim: number, stamped: number | undefined]; cancel: []; turn: [] }>()
const text = ref('')
/** What stands on the shim, where a micrometer says another. */
const stamped = ref<number | undefined>()
watch(
  () => props.valve,
  () => {
    text.value = ''
    stamped.value = undefined
  },
)
const size = computed(() => decimal(text.value) ?? 0)
/** It can be turned to, so that it is measured. */
const turns = computed(() => props.away && !props.camsOut && !props.correcting)
function put() {
  if (size.value > 0) emit('put', size.value, stamped.value || undefined)
}
function key(k: string): boolean {
  if (/^[\d.,]$/.test(k) && text.value.length < 6) text.value += k
  else if (k === 'Backspace' && text.value) text.value = text.value.slice(0, -1)
  else if (k === 'Enter' && size.value > 0) put()
  else if (k === 'Enter' && turns.value) emit('turn')
  else if (k === 'Escape' && props.correcting) emit('cancel')
  else return false
  return true
}
defineExpose({ key })
const pad = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', 'Backspace']
</script>

<template>
  <VBtn v-if="turns" class="tall-64 fs-22" variant="flat" size="large" @click="emit('turn')">
    Turn to where {{ valve }} is clear <kbd v-if="!size">Enter</kbd>
  </VBtn>
  <p class="ask fs-26">
    Shim under <b>{{ valve }}</b>: <span class="figure">{{ text || '–' }} mm</span>
  </p>
  <NumberPad :keys="pad" :columns="3" @key="key" />
  <NumberField v-model="stamped" label="Stamped, where the micrometer says another" unit="mm" />
  <VBtn :variant="away && !size ? 'outlined' : 'flat'" :disabled="!(size > 0)" @click="put">
    Save size <kbd v-if="size || !turns">Enter</kbd>
  </VBtn>
  <VBtn v-if="correcting" @click="emit('cancel')">Cancel</VBtn>
  <p v-else-if="!camsOut && !away" class="quiet fs-18">Taken out, it goes back in before the crank is turned.</p>
</template>
