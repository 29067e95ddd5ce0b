<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { clock } from '@/shared/units'

/** What the workshop's probe tells, or the thermometer that hangs on a practice engine, and a tap that takes it. */
defineProps<{
  probe: Pick<Schemas['ProbeStatus'], 'state' | 'detail' | 'engine_c' | 'ambient_c' | 'at'>
  practice: boolean
}>()
defineEmits<{ take: [] }>()
const heat = mine('temperature')
</script>

<template>
  <p class="probe" :class="probe.state" role="status">
    <template v-if="probe.state === 'ok'"
      ><span
        >{{ practice ? 'Thermometer' : 'Probe' }} <b class="figure">{{ heat.say(probe.engine_c!) }}</b>, ambient
        <b class="figure">{{ heat.say(probe.ambient_c!) }}</b></span
      >
      <VBtn v-if="practice" class="tall-64" variant="flat" @click="$emit('take')">Go on by it <kbd>T</kbd></VBtn>
      <VBtn v-else size="small" @click="$emit('take')">Use reading <kbd>T</kbd></VBtn></template
    >
    <template v-else-if="probe.state === 'lost'"
      >Probe lost: {{ probe.detail }}.
      {{ probe.at ? `Last ${heat.say(probe.engine_c!)} at ${clock(probe.at)}.` : '' }} Type the figures.</template
    >
    <template v-else>Reaching the probe…</template>
  </p>
</template>

<style scoped>
.probe {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 6px 4px 12px;
  border-left: 6px solid var(--in);
  background: var(--panel);
}

.probe.lost {
  padding: 8px 12px;
  border-left: 6px dotted var(--undecided);
}
</style>
