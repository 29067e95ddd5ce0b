<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import MoreButton from './MoreButton.vue'
import type { Way } from './more'

defineProps<{ ways: Way[]; /** How warm the engine is, where the head line has no room for it. */ heat: string }>()
const emit = defineEmits<{ help: [] }>()
const open = ref(false)
const opener = useTemplateRef<{ $el: HTMLElement }>('opener')
/** The list of keys gives the focus back to the menu that it was opened from. */
async function help() {
  open.value = false
  await nextTick()
  opener.value?.$el.focus()
  emit('help')
}
</script>

<template>
  <VMenu v-model="open" :transition="false">
    <template #activator="{ props: opens }"><MoreButton ref="opener" v-bind="opens" /></template>
    <VList class="edged">
      <VListItem v-if="heat" class="heat-line text-left quiet" :title="heat" />
      <VListItem
        v-for="w in ways"
        :key="w.title"
        tag="button"
        class="w-100 text-left"
        :to="w.to"
        :title="w.title"
        @click="w.keys ? help() : w.does?.()"
      />
    </VList>
  </VMenu>
</template>

<style scoped>
.heat-line::first-letter {
  text-transform: uppercase;
}
</style>
