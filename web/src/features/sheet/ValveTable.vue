<script setup lang="ts">
import type { Schemas, Verdict } from '@/shared/api/client'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import { verdictWord } from '@/shared/words'

/** Every valve of a job: its limits, what was found and left, and what was done to it. */
const props = defineProps<{ sheet: Schemas['SheetView'] }>()
const cells = (row: Schemas['SheetRow']) => [...(props.sheet.cold ? [row.cold] : []), row.found, row.left]
</script>

<template>
  <div class="table overflow-x-auto" tabindex="0" role="region" aria-label="All valves">
    <VTable density="compact">
      <thead>
        <tr>
          <th class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">Valve</th>
          <th class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">Limits, {{ sheet.unit }}</th>
          <th v-if="sheet.cold" class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">Cold start</th>
          <th class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">As found</th>
          <th class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">As left</th>
          <th class="quiet fs-15 font-weight-regular py-2 px-3 text-left text-no-wrap">What was done</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in sheet.rows" :key="row.valve">
          <th class="py-2 px-3 text-left text-no-wrap fs-22" scope="row">
            {{ row.valve }} <small class="quiet fs-15 font-weight-regular">{{ row.kind }}</small>
          </th>
          <td class="figure py-2 px-3 text-left text-no-wrap">{{ row.limits }}</td>
          <td v-for="(c, i) in cells(row)" :key="i" class="py-2 px-3 text-left text-no-wrap">
            <span v-if="c" class="reading d-inline-flex align-center ga-2">
              <b class="figure fs-22">{{ c.figure }}</b>
              <small v-if="c.other" class="quiet">{{ c.other }}</small>
              <VerdictGlyph :verdict="c.verdict as Verdict" /> {{ verdictWord[c.verdict as Verdict]
              }}<small v-if="c.close" class="quiet">close</small
              ><small v-for="n in c.notes" :key="n" class="override undecided">{{ n }}</small>
            </span>
            <span v-else class="quiet">–</span>
          </td>
          <td class="py-2 px-3 text-left text-no-wrap">{{ row.done }}</td>
        </tr>
      </tbody>
    </VTable>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  text-align: left;
}

th,
td {
  border-bottom: 1px solid var(--line);
}

@media print {
  th,
  td {
    padding: 3px 8px;
  }

  tbody th,
  .reading b {
    font-size: 13px;
  }
}
</style>
