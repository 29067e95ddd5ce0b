<script setup lang="ts">
import NumberField from '@/shared/NumberField.vue'
import FoldAway from '@/shared/FoldAway.vue'
import { counter, meterName, mine, shown } from '@/shared/mine'
import { day } from '@/shared/units'
import type { Schemas } from '@/shared/api/client'
import FeelLine from './FeelLine.vue'
import OdometerWhy from './OdometerWhy.vue'
import type { MyWay } from './useMyWay'

/** The start in one tap: as this mechanic went about the same engine by the same card last. */
defineProps<{
  way: MyWay
  vehicle: Schemas['Vehicle']
  set: string
  missing: string
  starting: boolean
  backwards: string
}>()
defineEmits<{ start: []; slip: [text: string] }>()
const odometer = defineModel<number | undefined>('odometer', { required: true })
const why = defineModel<string>('why', { required: true })
</script>

<template>
  <section class="last edged-brass d-grid ga-3 py-4 px-5 rounded" aria-label="As last time">
    <FoldAway :title="`As you did it last: ${way.says}`">
      <ul class="ma-0 ps-5 fs-18">
        <li>
          {{ way.mechanic }}<template v-if="way.on">, on {{ day(way.on) }}</template>
        </li>
        <li>
          Leaves: {{ set }}<template v-if="way.leaves_are">, {{ way.leaves_are }}</template>
        </li>
        <li v-if="way.way?.locking === 'nip_then_torque'">Nut nipped, then to its torque</li>
        <li v-if="way.way?.own_shift_mm">
          The nut {{ way.way.own_shift_mm < 0 ? 'closes' : 'opens' }} the gap by
          {{ Math.abs(way.way.own_shift_mm).toFixed(2) }} mm
        </li>
      </ul>
    </FoldAway>
    <FeelLine v-if="way.feel_says" :feel="String(way.feel_mm)" :says="way.feel_says" />
    <p v-if="way.back" class="caution ps-3">{{ way.back }}</p>
    <p v-for="g in way.gone" :key="g" class="caution ps-3">{{ g }}</p>
    <div class="fields fits-240 d-grid ga-3">
      <NumberField
        v-model="odometer"
        :label="vehicle.counts === 'h' ? 'Running hours' : 'Odometer'"
        :of="counter(vehicle.counts)"
        :placeholder="
          shown(vehicle)
            ? `last ${mine(counter(vehicle.counts)).bare(shown(vehicle)!)}`
            : `the ${meterName(vehicle.counts)}`
        "
        whole
        @slip="$emit('slip', $event)"
      />
    </div>
    <OdometerWhy v-if="backwards" v-model="why" :showed="backwards" />
    <p v-if="missing" class="quiet" role="status">{{ missing }}</p>
    <VBtn class="go fs-24" variant="flat" :disabled="missing !== '' || starting" @click="$emit('start')"
      >Start as last time</VBtn
    >
  </section>
</template>

<style scoped>
.caution {
  border-left: 6px solid var(--undecided);
}

.go {
  min-height: 72px;
}
</style>
