<script setup lang="ts">
import { ref, watch } from 'vue'
import { Refused, type Schemas } from '@/shared/api/client'
import AppDialog from '@/shared/AppDialog.vue'
import PickOne from '@/shared/PickOne.vue'
import { choices } from '@/shared/words'
import { roleMay, roleWords, type Role } from './roleWords'

const roles = choices(roleWords)

/** Somebody who comes, or one who is there: name, role, and how he is known. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{
  person: Schemas['PersonView'] | null
  first: boolean
  save: (body: Schemas['PersonBody']) => Promise<void>
}>()

const name = ref('')
const role = ref<Role>('mechanic')
const pin = ref('')
const tag = ref('')
const left = ref(false)
const trouble = ref('')
const faults = ref<Record<string, string>>({})

watch(open, (is) => {
  if (!is) return
  name.value = props.person?.name ?? ''
  role.value = props.person?.role ?? (props.first ? 'foreman' : 'mechanic')
  pin.value = tag.value = trouble.value = ''
  left.value = Boolean(props.person?.left_at)
  faults.value = {}
})

async function go() {
  trouble.value = ''
  faults.value = {}
  try {
    await props.save({
      name: name.value.trim(),
      role: role.value,
      pin: pin.value || undefined,
      tag: tag.value.trim() || undefined,
      left: left.value || undefined,
    })
  } catch (e) {
    trouble.value = (e as Error).message
    if (!(e instanceof Refused)) return
    faults.value = Object.fromEntries(e.faults.map((f) => [f.location.replace('body.', ''), f.message]))
    if (faults.value.name || faults.value.pin || faults.value.tag) trouble.value = '' // said at its field
  }
}
</script>

<template>
  <AppDialog v-model="open" :title="person ? person.name : 'Add somebody'" :width="640">
    <form class="d-grid ga-4" @submit.prevent="go">
      <VTextField
        v-model="name"
        label="Name, as it stands on sheets"
        maxlength="80"
        :error-messages="faults.name"
        autofocus
      />
      <PickOne v-if="!first" v-model="role" label="Role" :options="roles" small />
      <p class="quiet">{{ roleWords[role] }}: {{ roleMay[role] }}.</p>
      <VTextField
        v-model="pin"
        :label="person?.has_pin ? 'New PIN (empty: as it is)' : 'PIN, 4 to 12 digits'"
        type="password"
        inputmode="numeric"
        autocomplete="new-password"
        maxlength="12"
        :error-messages="faults.pin"
      />
      <VTextField
        v-model="tag"
        :label="person?.has_tag ? 'New tag: hold it to the reader (empty: as it is)' : 'Tag: hold it to the reader'"
        maxlength="64"
        autocomplete="off"
        :error-messages="faults.tag"
        @keydown.enter.prevent
      />
      <VCheckbox v-if="person" v-model="left" label="Has left: signs in no more; what was entered stays" hide-details />
      <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
      <div class="d-flex flex-wrap ga-3">
        <VBtn variant="flat" type="submit" :disabled="!name.trim()">Store</VBtn>
        <VBtn @click="open = false">Leave it</VBtn>
      </div>
    </form>
  </AppDialog>
</template>
