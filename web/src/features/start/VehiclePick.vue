<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import PickOne from '@/shared/PickOne.vue'

/** The vehicles to choose from, those worked on last first; where there are many, a few of them and a search. */
defineProps<{
  chosen: string
  offered: Schemas['Vehicle'][]
  total: number
  many: boolean
  /** The job that a vehicle has on the go. */ going: (v: Schemas['Vehicle']) => unknown
}>()
defineEmits<{ pick: [id: string] }>()
const search = defineModel<string>('search', { required: true })
const all = defineModel<boolean>('all', { required: true })
</script>

<template>
  <VTextField
    v-if="many"
    v-model="search"
    label="Search name, plate or engine"
    clearable
    hide-details
    density="comfortable"
  />
  <p v-if="search && !offered.length" class="quiet" role="status">No vehicle is called so.</p>
  <PickOne
    v-slot="{ option: { v } }"
    :model-value="chosen"
    label="Vehicle"
    :options="offered.map((v) => ({ value: v.id, v }))"
    tiles
    @update:model-value="(id) => $emit('pick', id)"
  >
    <b>{{ v.name }}</b><span class="quiet">{{ [v.plate, v.engine_name].filter(Boolean).join(' · ') }}</span>
    <small v-if="going(v)" class="differs undecided fs-15">has a job on the go</small>
  </PickOne>
  <VBtn v-if="!search && offered.length < total" class="justify-self-start" @click="all = true"
    >All {{ total }} vehicles</VBtn
  >
</template>
