<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import ScrewDial from '@/shared/engine/ScrewDial.vue'
import { mine } from '@/shared/mine'
import { useInstruments } from '@/shared/useInstruments'
import { aimSaid, feelWord } from '@/shared/words'
import WhyLink from '@/shared/WhyLink.vue'
import ValveTabs from '../parts/ValveTabs.vue'
import { useBench } from '../useBench'

type Feel = Exclude<Schemas['Reading']['feel'], ''>

const { view, state, valve: now, act, leave, instead } = useBench()
const valve = computed(() => now.value!)
const gear = computed(() => view.value.engine.gear)
const locking = computed(() => state.value.now.action === 'lock')
const feels: Feel[] = ['free', 'drag', 'wont_go']
const by = computed(() => valve.value.set_by)
const felt = computed(() => valve.value.round.at(-1)?.feel)

function feel(f: Feel) {
  const { name, set_by_mm, set_by_angled } = valve.value
  if (felt.value !== f) act({ kind: 'reading', valve: name, leaves_mm: set_by_mm, angled: set_by_angled, feel: f })
}

/** The torque wrench, and how often it had clicked when this nut's turn came: what it says of another nut is not said of this. */
const instruments = useInstruments()
const wrench = computed(() => instruments.of('wrench'))
const clicks = ref(wrench.value?.takes ?? 0)
watch([() => valve.value.name, locking], () => (clicks.value = wrench.value?.takes ?? 0))
const clicked = computed(() => (wrench.value && wrench.value.takes > clicks.value ? wrench.value : null))

const byFeel = () => act({ kind: 'locked', valve: valve.value.name, by: 'feel' })

function key(k: string): boolean {
  const f = feels[Number(k) - 1]
  if (!locking.value || !f || felt.value === f) return false
  feel(f)
  return true
}
defineExpose({ key })
</script>

<template>
  <ValveTabs />
  <div class="set d-grid flex-1-0 gr-2 gc-4 align-content-start">
    <div class="dial">
      <ScrewDial :screw="valve.screw" :nut="gear.lock_nut" :setter="gear.picture.setter" :locked="locking" />
    </div>
    <p class="by align-self-end">
      <span class="quiet">{{ locking ? 'Set by' : 'Set by leaf' }}</span> <b class="figure ms-1 lh-none">{{ by }}</b>
    </p>
    <div class="say lh-easy d-grid ga-2 align-content-start fs-16">
      <p v-if="valve.with_nut || valve.nut_says" class="shift py-1 px-3 on-panel bar-brass">
        {{ valve.with_nut || valve.nut_says }}
      </p>
      <p v-else-if="view.aim !== 'nominal'" class="quiet">Set to the {{ aimSaid(view.aim, view.aim_reason) }}.</p>
      <p v-if="!locking" class="quiet">{{ gear.words.tools }} <WhyLink page="adjusters" :of="{ kind: gear.kind }" /></p>
      <p v-if="!locking && valve.screw?.by_feel">{{ valve.screw.why }}</p>
      <p v-if="locking">{{ gear.words.lock }}</p>
      <p v-if="locking && clicked" class="py-1 px-3 on-panel bar-brass" :class="{ tight: clicked.off }" role="status">
        {{ clicked.says }}
      </p>
      <p v-else-if="locking && wrench" class="quiet">The wrench shows {{ mine('torque').say(wrench.value) }}.</p>
    </div>
    <VBtn v-if="locking && valve.nipped" class="all-columns justify-self-start" size="small" @click="byFeel">
      Cannot be torqued while the screw is held: by feel
    </VBtn>
    <div
      v-if="locking"
      class="feels d-grid all-columns ga-2 align-center"
      role="group"
      :aria-label="`With the nut slack, how does ${by} feel?`"
    >
      <span class="quiet">Nut slack, {{ by }}:</span>
      <VBtn
        v-for="(f, i) in feels"
        :key="f"
        size="small"
        :class="{ on: felt === f }"
        :aria-pressed="felt === f"
        @click="feel(f)"
      >
        {{ feelWord[f] }} <kbd>{{ i + 1 }}</kbd>
      </VBtn>
    </div>
    <div v-else class="else d-flex flex-wrap all-columns ga-2">
      <VBtn size="small" @click="instead()">Read {{ valve.name }} again</VBtn>
      <VBtn size="small" @click="leave(valve.name)">Leave {{ valve.name }} as it is…</VBtn>
    </div>
  </div>
</template>

<style scoped>
.tight {
  border-left-color: var(--tight);
}

.set {
  grid-template: auto 1fr auto / 190px minmax(0, 1fr);
}

.dial {
  grid-row: 1 / 3;
  width: 190px;
  height: 190px;
}

.by b {
  font-size: 44px;
}

.feels {
  grid-template-columns: auto repeat(3, minmax(0, 1fr));
}

.feels .v-btn {
  min-height: 56px;
  padding-inline: 6px;
}

.feels .on {
  border-color: var(--brass);
  background: var(--brass);
  color: var(--on-brass);
  font-weight: 700;
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
