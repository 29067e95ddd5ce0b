<script setup lang="ts">
import { computed } from 'vue'
import type { JobView, Schemas, ValveState } from '@/shared/api/client'
import { feelWord } from '@/shared/words'
import { settingLeaf, shiftWords } from './benchWords'
import ScrewDial from './ScrewDial.vue'

const props = defineProps<{ view: JobView; valve: ValveState; locking: boolean }>()
const emit = defineEmits<{ feel: [leaves: number[], angled: boolean[], feel: Schemas['Reading']['feel']]; leave: [] }>()

const feels: Exclude<Schemas['Reading']['feel'], ''>[] = ['free', 'drag', 'wont_go']
const by = computed(() => settingLeaf(props.valve))
const felt = computed(() => props.valve.round.at(-1)?.feel)
const shift = computed(() => shiftWords(props.view, props.valve))

function key(k: string): boolean {
  const f = feels[Number(k) - 1]
  if (!props.locking || !f || felt.value === f) return false
  emit('feel', props.valve.set_by_mm, props.valve.set_by_angled, f)
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="set">
    <div class="dial"><ScrewDial :screw="valve.screw" :nut="view.engine.has_lock_nut" :locked="locking" /></div>
    <p class="by">
      <span class="quiet">{{ locking ? 'Set by' : 'Set by leaf' }}</span> <b class="figure">{{ by }}</b>
    </p>
    <div class="say">
      <p v-if="shift" class="shift">{{ shift }}</p>
      <p v-else-if="view.aim === 'loose'" class="quiet">
        The loose end of the limits: {{ view.aim_reason || 'no reason given' }}.
      </p>
      <p v-if="!locking" class="quiet">
        Check first that the screw turns freely: a ring spanner on the nut, a driver in the screw. Turn it until it
        touches the leaf without clamping it.
      </p>
      <p v-if="!locking && valve.screw?.by_feel">{{ valve.screw.why }}</p>
      <p v-if="locking">
        Tightening drags the screw round and closes the gap. Hold the screw still with the driver while the nut goes
        tight.
      </p>
    </div>
    <div v-if="locking" class="feels" role="group" :aria-label="`With the nut slack, how does ${by} feel?`">
      <span class="quiet">Nut slack, {{ by }}:</span>
      <button
        v-for="(f, i) in feels"
        :key="f"
        type="button"
        class="mx-btn small"
        :class="{ on: felt === f }"
        :aria-pressed="felt === f"
        @click="felt !== f && emit('feel', valve.set_by_mm, valve.set_by_angled, f)"
      >
        {{ feelWord[f] }} <kbd>{{ i + 1 }}</kbd>
      </button>
    </div>
    <button v-else class="mx-btn small leave" type="button" @click="emit('leave')">
      Leave {{ valve.name }} out of limits…
    </button>
  </div>
</template>

<style scoped>
.set {
  display: grid;
  grid-template: auto 1fr auto / 190px minmax(0, 1fr);
  gap: 10px 18px;
  align-content: start;
}

.dial {
  grid-row: 1 / 3;
  width: 190px;
  height: 190px;
}

.say {
  display: grid;
  gap: 10px;
  align-content: start;
  font-size: 17px;
  line-height: 1.3;
}

.by {
  align-self: end;
}

.by b {
  margin-left: 6px;
  font-size: 44px;
  line-height: 1;
}

.shift {
  padding: 6px 12px;
  border-left: 6px solid var(--brass);
  background: var(--panel);
}

.feels {
  display: grid;
  grid-template-columns: auto repeat(3, minmax(0, 1fr));
  grid-column: 1 / -1;
  gap: 8px;
  align-items: center;
}

.feels .mx-btn {
  min-height: 56px;
  padding-inline: 6px;
}

.feels .on {
  border-color: var(--brass);
  background: var(--brass);
  color: var(--on-brass);
  font-weight: 700;
}

.leave {
  grid-column: 1 / -1;
  justify-self: start;
}

@media (width <= 1150px) {
  .feels .quiet {
    grid-column: 1 / -1;
  }

  .feels {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }

  .set {
    grid-template-columns: 110px minmax(0, 1fr);
  }

  .dial {
    grid-row: 1;
    width: 110px;
    height: 110px;
  }

  .by {
    align-self: center;
  }

  .say {
    grid-column: 1 / -1;
  }
}
</style>
