<script setup lang="ts">
import { computed } from 'vue'
import type { JobView } from '@/shared/api/client'
import AppDialog from '@/shared/AppDialog.vue'
import { degrees } from '@/shared/units'
import { capital } from '@/shared/words'
import type { Doing } from '../useJob'

/** How a valve that does not stand clear is taken: at its stop, or now, by what is seen. */
const name = defineModel<string>({ required: true })
const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing] }>()

const open = computed({ get: () => name.value !== '', set: (on) => !on && (name.value = '') })
const valve = computed(() => props.view.state.valves.find((v) => v.name === name.value))
const known = computed(() => props.view.state.crank_deg != null)
/** In the direction of turning, up to a whole degree. */
const far = computed(() => {
  const turn = valve.value?.clear_in_deg
  return turn == null ? '' : degrees(Math.ceil(turn))
})
function take(doing: Doing) {
  emit('do', doing)
  name.value = ''
}
</script>

<template>
  <AppDialog
    v-model="open"
    :title="known ? `${name} is not clear here` : `Where the crank stands is not known`"
    :width="620"
  >
    <template v-if="valve">
      <p v-if="far" class="fs-24">
        Turn a further <b class="figure brass">{{ far }}</b>: {{ name }} is clear from there.
      </p>
      <div class="d-grid ga-2">
        <VBtn size="large" :variant="known ? 'flat' : 'outlined'" @click="take({ kind: 'picked', valve: name })"
          >Turn to its stop</VBtn
        >
        <p v-if="valve.taken_by.length" class="quiet">Turned by eye? Say what you see there, and take it:</p>
        <VBtn
          v-for="{ says, ...sign } in valve.taken_by"
          :key="says"
          size="large"
          @click="take({ kind: 'located', seen: [sign], take: name })"
          >{{ capital(says) }}</VBtn
        >
        <VBtn @click="name = ''">Go back</VBtn>
      </div>
    </template>
  </AppDialog>
</template>
