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
          <th>Valve</th>
          <th>Limits, {{ sheet.unit }}</th>
          <th v-if="sheet.cold">Cold start</th>
          <th>As found</th>
          <th>As left</th>
          <th>What was done</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in sheet.rows" :key="row.valve">
          <th scope="row">
            {{ row.valve }} <small class="quiet">{{ row.kind }}</small>
          </th>
          <td class="figure">{{ row.limits }}</td>
          <td v-for="(c, i) in cells(row)" :key="i">
            <span v-if="c" class="reading d-inline-flex align-center ga-2">
              <b class="figure">{{ c.figure }}</b>
              <small v-if="c.other" class="quiet">{{ c.other }}</small>
              <VerdictGlyph :verdict="c.verdict as Verdict" /> {{ verdictWord[c.verdict as Verdict]
              }}<small v-if="c.close" class="quiet">close</small
              ><small v-for="n in c.notes" :key="n" class="override undecided">{{ n }}</small>
            </span>
            <span v-else class="quiet">–</span>
          </td>
          <td>{{ row.done }}</td>
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
  color: var(--quiet);
  font-size: 15px;
  font-weight: 400;
  text-align: left;
}

th,
td {
  padding: 9px 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}

tbody th {
  font-size: 22px;
}

tbody th small {
  font-size: 15px;
  font-weight: 400;
}

.reading b {
  font-size: 22px;
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
