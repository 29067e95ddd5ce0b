<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { bareButton } from '@/shared/bareButton'
import { octagon } from '@/shared/engine/shapes'
import { kindOf, limitsOf, unitOver } from '../benchWords'
import { capital } from '@/shared/words'
import { useBench } from '../useBench'

const { view, state, act } = useBench()
/** More than two rows, on a tablet one, hide the leaves: from the one in hand on, so many; any other is tapped on the head. */
const small = useMediaQuery('(width <= 1100px)')
const most = computed(() => (small.value ? 5 : 10))
const names = computed(() => {
  const { here, valve } = state.value.now
  const all = here.includes(valve) ? here : [valve, ...here]
  if (all.length <= most.value) return all
  const at = all.indexOf(valve)
  return [...all.slice(at), ...all.slice(0, at)].slice(0, most.value)
})

const calledOf = (name: string) => state.value.valves.find((v) => v.name === name)!.called

function pick(valve: string) {
  if (valve !== state.value.now.valve) act({ kind: 'picked', valve })
}
</script>

<template>
  <div
    class="tabs d-flex flex-0-0 flex-wrap ga-2 pb-1"
    :class="{ alone: names.length === 1, many: names.length > 2, crowd: names.length > 4 }"
    role="group"
    aria-label="Valves at this stop"
  >
    <button
      v-for="name in names"
      :key="name"
      type="button"
      class="tab justify-start py-1 px-3 text-left"
      :class="[bareButton, { on: name === state.now.valve }]"
      :aria-pressed="name === state.now.valve"
      @click="pick(name)"
    >
      <span class="v-btn__content"
        ><svg class="flex-0-0 f-none s-quiet sw-3" viewBox="-24 -24 48 48" aria-hidden="true">
          <circle v-if="kindOf(view, name) === 'intake'" r="20" />
          <path v-else :d="octagon(20)" />
        </svg>
        <span
          ><b class="d-block fs-28 lh-none">{{ capital(calledOf(name)) }}</b
          ><small class="quiet fs-15 lh-none"
            ><span class="kind">{{ kindOf(view, name) }}, </span>{{ limitsOf(view, name)
            }}<span class="unit">&nbsp;{{ unitOver(view, [name]) }}</span></small
          ></span
        ></span
      >
    </button>
  </div>
</template>

<style scoped>
.tab {
  --v-btn-height: 68px;

  flex: 1 1 0;
  min-width: 0;
}

/* Three or four stand in one row, more in two. */
.many .tab {
  padding: 4px 8px;
}

.many svg,
.many .kind,
.many .unit,
.crowd small {
  display: none;
}

.crowd .tab {
  --v-btn-height: 56px;

  flex-basis: 17%;
  padding: 0 4px;
}

.tab svg {
  width: 38px;
  height: 38px;
}

.tab.on svg {
  stroke: var(--brass);
}

/* The form says the kind. */
@media (width <= 1100px) {
  .kind {
    display: none;
  }

  .tab {
    --v-btn-height: 60px;

    padding: 2px 10px;
  }
}

/* Headline and the head beside it say the same of one alone. */
@media (1000px < width <= 1100px) and (height <= 820px) {
  .alone {
    display: none;
  }
}

@media (width <= 480px) {
  .many small {
    display: none;
  }

  .many .tab {
    --v-btn-height: 56px;

    padding: 2px 6px;
  }
}

@media (width <= 1000px) and (height <= 480px) {
  .crowd {
    flex-wrap: nowrap;
    overflow-x: auto;
  }

  .crowd .tab {
    flex: none;
  }

  .tab {
    --v-btn-height: 56px;

    padding: 2px 10px;
  }

  .tab small {
    display: none;
  }

  .tab b {
    font-size: 24px;
  }
}
</style>
