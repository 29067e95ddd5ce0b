<script setup lang="ts">
import { decimal } from '@/shared/decimal'
import { computed } from 'vue'
import CardFields from './CardFields.vue'
import FieldNotes from './FieldNotes.vue'
import type { ClearanceCard, Sheet } from './useEditor'

const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[]; warned: (location: string) => string[] }>()

function add() {
  const card: ClearanceCard = { source: 'maker’s book', state: 'cold', intake: {}, exhaust: {} }
  sheet.value.clearances = [...(sheet.value.clearances ?? []), card]
}

function remove(i: number) {
  const rest = (sheet.value.clearances ?? []).filter((_, n) => n !== i)
  if (rest.length) sheet.value.clearances = rest
  else delete sheet.value.clearances
}

/** The maker's order as lines: "0: I1 E1 I2 E3". */
const own = computed({
  get: () => (sheet.value.own_sequence ?? []).map((s) => `${s.crank_deg}: ${s.set.join(' ')}`).join('\n'),
  set: (t: string) => {
    const stops = t
      .split('\n')
      .filter((l) => l.trim() !== '')
      .map((l) => /^([^:;]*)[:;](.*)$/.exec(l)?.slice(1) ?? [l, ''])
      .map(([deg, set]) => ({
        crank_deg: decimal(deg!) ?? (deg as unknown as number), // a line with a slip stays, for its fault to be said
        set: set!
          .trim()
          .split(/[\s,]+/)
          .filter(Boolean),
      }))
    if (stops.length) sheet.value.own_sequence = stops
    else delete sheet.value.own_sequence
  },
})
</script>

<template>
  <section>
    <h2>Clearances</h2>
    <p class="quiet small fs-16">One card for each source. Cold and hot are never converted into each other.</p>
    <CardFields
      v-for="(c, i) in sheet.clearances ?? []"
      :key="i"
      v-model="sheet.clearances![i]!"
      :at="`clearances[${i}]`"
      :said="said"
      :warned="warned"
      :aria-label="c.source"
      @remove="remove(i)"
    />
    <VBtn @click="add">Add a card</VBtn>
  </section>
  <section>
    <h2>The maker’s own order</h2>
    <VTextarea
      v-model.lazy="own"
      label="One stop a line: degrees, then the valves"
      placeholder="0: I1 E1 I2 E3"
      persistent-placeholder
      rows="3"
      variant="outlined"
      hide-details
      :error="said('own_sequence').length > 0"
    />
    <FieldNotes :problems="said('own_sequence')" :warnings="warned('own_sequence')" />
  </section>
</template>
