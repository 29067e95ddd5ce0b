<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'
import { answered, api } from './api/client'
import { people } from './session'

/** Who is signed in here, and the way out. It is asked once more: a name is easily brushed. */
const asking = ref(false)
const { start } = useTimeoutFn(() => (asking.value = false), 4000, { immediate: false })
function out() {
  if (asking.value) return void answered(api.DELETE('/api/v1/session')).then(people.take, () => {}) // off the network one stays
  asking.value = true
  start()
}
</script>

<template>
  <VBtn
    v-if="people.me.value"
    class="quiet"
    size="small"
    :aria-label="asking ? `Sign ${people.me.value} out` : `${people.me.value} is signed in`"
    @click="out"
    >{{ asking ? 'Sign out?' : people.me.value.split(' ')[0] }}</VBtn
  >
</template>
