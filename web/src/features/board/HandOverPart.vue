<script setup lang="ts">
import { computed, ref } from 'vue'
import { packed } from '@/shared/handOver'
import { useQueue } from '@/shared/useQueue'
import { entries } from '@/shared/words'

/** Where the workshop goes on at another machine: what waits here is handed over to its address. */
const queue = useQueue()
const waits = computed(() => queue.waiting.value)
const asked = ref(false)
const typed = ref('')
const wrong = ref('')

/** The address as it was meant: "192.168.1.11:8080" is one under protection. */
function address(): URL | null {
  const text = typed.value.trim()
  try {
    return new URL(/^https?:\/\//.test(text) ? text : `https://${text}`)
  } catch {
    return null
  }
}

async function go() {
  const to = address()
  if (!to || !typed.value.trim())
    return void (wrong.value =
      'This is no address: it stands under the other machine’s code, as https://192.168.1.11:8080.')
  if (to.origin === location.origin) return void (wrong.value = 'This is the address that cannot be reached.')
  location.assign(`${to.origin}/handed#${await packed({ from: location.origin, list: waits.value })}`)
}
</script>

<template>
  <div v-if="waits.length" class="d-grid ga-3 w-100">
    <p class="fs-20">
      <b>{{ entries(waits.length) }} not yet on the workshop’s disk.</b> {{ waits.length === 1 ? 'It is' : 'They are' }}
      sent when this address can be reached again.
    </p>
    <VBtn v-if="!asked" class="justify-self-start" @click="asked = true">Another machine took over…</VBtn>
    <form v-else class="d-flex flex-wrap align-center ga-3" @submit.prevent="go">
      <VTextField
        v-model="typed"
        label="Its address"
        placeholder="https://192.168.1.11:8080"
        :error-messages="wrong"
        hide-details="auto"
        inputmode="url"
        autocapitalize="off"
        @update:model-value="wrong = ''"
      />
      <VBtn variant="flat" type="submit">Hand over</VBtn>
      <VBtn @click="asked = false">Cancel</VBtn>
    </form>
  </div>
</template>
