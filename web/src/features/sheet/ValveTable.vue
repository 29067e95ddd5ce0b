<script setup lang="ts">
import { computed } from 'vue'
import type { JobView, Judgement } from '@/shared/api/client'
import { figureOf } from '@/shared/engine/figure'
import { gaps, mm, thou } from '@/shared/units'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import { verdictOf } from '@/shared/words'

/** Every valve of a job: its limits, what was found and left, and what was done to it. */
const props = defineProps<{ view: JobView }>()
const state = computed(() => props.view.state)
const rows = computed(() =>
  state.value.valves.map((v) => ({ v, kind: props.view.engine.valves.find((x) => x.name === v.name)!.kind })),
)
const mayBeClose = ({ verdict, sure, figure }: Judgement) =>
  verdict !== 'undecided' && !sure && !['looser', 'tighter'].includes(figure.kind)
const unit = computed(() => gaps(state.value.card.intake.in_thou).unit)
</script>

<template>
  <div class="table" tabindex="0" role="region" aria-label="All valves">
    <VTable density="compact">
      <thead>
        <tr>
          <th>Valve</th>
          <th>Limits, {{ unit }}</th>
          <th v-if="state.cold">Cold start, {{ unit }}</th>
          <th>As found, {{ unit }}</th>
          <th>As left, {{ unit }}</th>
          <th>What was done</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ v, kind } in rows" :key="v.name">
          <th scope="row">
            {{ v.name }} <small class="quiet">{{ kind }}</small>
          </th>
          <td class="figure">{{ gaps(v.limits.in_thou).window(v.limits) }}</td>
          <td v-for="(r, i) in [...(state.cold ? [v.cold_left] : []), v.as_found, v.last]" :key="i">
            <span v-if="r" class="reading">
              <b class="figure">{{ figureOf(r?.judgement, v.limits.in_thou) }}</b>
              <small v-if="r.judgement.estimate_mm !== null" class="quiet">{{
                v.limits.in_thou ? `${mm(r.judgement.estimate_mm)} mm` : thou(r.judgement.estimate_mm)
              }}</small>
              <VerdictGlyph :verdict="r.judgement.verdict" /> {{ verdictOf(r.judgement)
              }}<small v-if="mayBeClose(r.judgement)" class="quiet">close</small
              ><small v-if="r.off_aim" class="quiet">off the aim</small
              ><small v-if="r.stale" class="quiet">too late – re-check hot</small
              ><small v-if="r.time_doubtful" class="override">time in doubt</small>
            </span>
            <span v-else class="quiet">–</span>
          </td>
          <td>
            {{ v.done }}
          </td>
        </tr>
      </tbody>
    </VTable>
  </div>
</template>

<style scoped>
.override {
  color: var(--undecided);
}

.table {
  overflow-x: auto;
}

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

.reading {
  display: inline-flex;
  align-items: center;
  gap: 8px;
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
