<script setup lang="ts">
import { ref } from 'vue'
import { answered, api, newID } from '@/shared/api/client'
import { people } from '@/shared/session'

/** The first foreman, set up from a tablet by whoever reads the code that the program said at its start. */
const name = ref('')
const pin = ref('')
const code = ref('')
const trouble = ref('')

async function go() {
  trouble.value = ''
  try {
    const body = {
      id: newID(),
      name: name.value.trim(),
      role: 'foreman' as const,
      pin: pin.value,
      set_up_code: code.value.trim(),
    }
    await answered(api.POST('/api/v1/people', { body }))
    await people.load()
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
</script>

<template>
  <form class="set-up d-grid ga-4" @submit.prevent="go">
    <h1 class="fs-34">The first foreman</h1>
    <p>
      Nobody is set up yet. A foreman adds the others; from now on everybody signs in. The code stands in the program’s
      window, or in its log, on the machine that it runs on.
    </p>
    <VTextField
      v-model="code"
      label="Code"
      inputmode="numeric"
      autocomplete="off"
      maxlength="12"
      hide-details
      autofocus
    />
    <VTextField v-model="name" label="Name, as it stands on sheets" maxlength="80" hide-details />
    <VTextField
      v-model="pin"
      label="PIN, 4 to 12 digits"
      type="password"
      inputmode="numeric"
      autocomplete="new-password"
      maxlength="12"
      hide-details
    />
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
    <VBtn
      class="go"
      size="large"
      variant="flat"
      type="submit"
      :disabled="!name.trim() || pin.length < 4 || !code.trim()"
      >Set up</VBtn
    >
  </form>
</template>

<style scoped>
.set-up {
  width: min(100%, 560px);
}
</style>
