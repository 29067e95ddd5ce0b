<script setup lang="ts">
import { computed } from 'vue'
import { queryClient } from '@/shared/api/reads'
import { mine, person, units, type Units } from '@/shared/mine'
import PickOne from '@/shared/PickOne.vue'

/** In which units whoever is at this screen is spoken to: theirs first, the other beside it. */
const gaps = [
  { value: '', title: 'As the card says' },
  { value: 'mm', title: 'mm' },
  { value: 'thou', title: 'thou' },
] as const
const pairs = [
  { key: 'lbfft', label: 'Torque', titles: ['N·m', 'lbf·ft'] },
  { key: 'fahrenheit', label: 'Temperature', titles: ['°C', '°F'] },
  { key: 'miles', label: 'Distance', titles: ['km', 'miles'] },
] as const
/** What was read before was told in the units before. */
const told = () => queryClient.invalidateQueries()
function choose<K extends keyof Units>(key: K, value: Units[K]) {
  units[key] = value
  void told()
}
const example = computed(() =>
  [mine('length').both(0.25), mine('torque').both(14), mine('temperature').both(38), mine('distance').both(20000)].join(
    ' · ',
  ),
)
</script>

<template>
  <section>
    <h2>Units{{ person() ? ` for ${person()}` : '' }}</h2>
    <p class="quiet">Each person’s own come first here, the other beside. No figure that is kept or judged changes.</p>
    <div class="units d-grid gr-2 gc-4 align-center">
      <span>Gaps</span>
      <PickOne
        :model-value="units.length"
        label="Gaps"
        :options="gaps"
        small
        @update:model-value="(v) => choose('length', v)"
      />
      <template v-for="p in pairs" :key="p.key">
        <span>{{ p.label }}</span>
        <PickOne
          :model-value="Number(units[p.key])"
          :label="p.label"
          :options="p.titles.map((title, value) => ({ value, title }))"
          small
          @update:model-value="(v) => choose(p.key, v === 1)"
        />
      </template>
    </div>
    <p class="figure quiet">{{ example }}</p>
  </section>
</template>

<style scoped>
.units {
  grid-template-columns: max-content 1fr;
}
</style>
