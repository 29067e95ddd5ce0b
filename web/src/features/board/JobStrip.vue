<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { JobShort, Verdict } from '@/shared/api/client'
import { octagon, verdictPaths } from '@/shared/engine/shapes'
import { clock, when } from '@/shared/units'
import { phaseName } from '@/shared/phases'

const props = defineProps<{ job: JobShort; first?: boolean; waits?: number }>()

const next = computed(() => {
  const { job } = props
  if (job.damaged) return 'Cannot be opened'
  if (job.start_from && new Date(job.start_from) > new Date())
    return `Do not start before ${clock(job.start_from)}: the sealant cures`
  if (job.cover_by) return `Sealant stands open: cover on by ${clock(job.cover_by)}`
  if (job.waits) return `Parked, waits for ${job.waits}`
  return job.ready_at ? `Cooling: ready ${when(job.ready_at)}` : job.brief
})
const to = computed(() => (props.job.phase === 'done' ? `/jobs/${props.job.id}/sheet` : `/jobs/${props.job.id}`))
// Many valves stand in rows, so that their verdicts are seen from afar.
const columns = computed(() => Math.ceil(props.job.valves.length / Math.ceil(props.job.valves.length / 16)) || 1)
const width = computed(() => columns.value * 30)
const height = computed(() => Math.ceil(props.job.valves.length / columns.value) * 44)
</script>

<template>
  <RouterLink
    class="strip d-grid align-center ga-5 py-3 px-5 edged rounded on-panel text-decoration-none"
    :class="{ first, done: job.phase === 'done' }"
    :to="to"
  >
    <div class="who">
      <b class="name lh-tight fs-26">{{ job.vehicle }}</b>
      <p class="quiet">{{ job.plate }} · {{ job.engine_name }}</p>
      <p class="quiet small fs-15">
        {{ job.mechanic }} · {{ job.reason || 'no reason given' }} · {{ when(job.touched_at) }}
      </p>
    </div>
    <svg
      class="valves w-100"
      :viewBox="`0 0 ${width} ${height}`"
      role="img"
      :aria-label="`Valves: ${job.valves.map((v) => `${v.name} ${v.verdict || 'not read'}`).join(', ')}`"
    >
      <g
        v-for="(v, i) in job.valves"
        :key="v.name"
        :class="v.verdict || 'none'"
        :transform="`translate(${(i % columns) * 30 + 15} ${Math.floor(i / columns) * 44 + 15})`"
      >
        <circle v-if="v.kind === 'intake'" class="f-none sw-2" r="11" />
        <path v-else class="f-none sw-2" :d="octagon(11)" />
        <g v-if="v.verdict" transform="translate(0 22) scale(.5)">
          <path class="fill f-none sw-2" :d="verdictPaths[v.verdict as Verdict].fill" />
          <path class="f-none sw-5" :d="verdictPaths[v.verdict as Verdict].line" />
        </g>
      </g>
    </svg>
    <div class="next d-grid ga-1">
      <span class="phase"
        >{{ phaseName(job.phase) }} <b class="figure">{{ job.done }}/{{ job.total }}</b></span
      >
      <strong class="fs-24 lh-tight">{{ next }}</strong>
      <span v-if="job.damaged" class="small fs-15" role="alert">{{ job.damaged }} See metronix check and restore.</span>
      <span v-if="waits" class="small waits undecided fs-15"
        >{{ waits === 1 ? '1 entry waits' : `${waits} entries wait` }} in this browser</span
      >
      <span v-if="job.school" class="quiet small fs-15">{{ job.title }}</span>
    </div>
    <span class="open quiet lh-none" aria-hidden="true">›</span>
  </RouterLink>
</template>

<style scoped>
.strip {
  grid-template-columns: minmax(230px, 1.1fr) minmax(260px, 1.5fr) minmax(150px, 1fr) auto;
  min-height: 112px;
}

.strip:hover {
  border-color: var(--quiet);
}

.strip.first {
  border-color: var(--brass);
}

.strip.done {
  min-height: 84px;
  background: none;
}

.valves {
  max-height: 96px;
}

/* What is next stands beside the name. */
@media (width > 860px) {
  .next {
    grid-row: 1;
    grid-column: 2;
  }
}

.valves circle,
.valves path {
  stroke: var(--tone, var(--edge));
}

.valves .fill {
  fill: var(--tone);
  stroke: none;
}

.none {
  stroke-dasharray: 3 3;
}

.first .next strong {
  color: var(--brass);
  font-size: 28px;
}

.phase {
  color: var(--quiet);
  font-size: 17px;
}

.phase b {
  color: var(--ink);
}

.open {
  font-size: 40px;
}

@media (width <= 860px) {
  .strip {
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 12px;
    padding: 14px;
  }

  .valves,
  .next {
    grid-column: 1;
  }

  .valves {
    justify-self: start;
    max-width: 320px;
  }

  .open {
    grid-row: 1 / span 3;
    grid-column: 2;
  }
}
</style>
