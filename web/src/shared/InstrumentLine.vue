<script setup lang="ts">
import { computed } from 'vue'
import { useInstruments } from '@/shared/useInstruments'
import { degrees } from '@/shared/units'

/** What the instruments at the engine say beside the one instruction: how far is to go, what is off, what is lost. */
const props = defineProps<{ /** How far is to go stands large beside it already. */ withoutDegrees?: boolean }>()
const { list, crank } = useInstruments()
const lost = computed(() => list.value.filter((i) => i.state === 'lost' && (i.kind !== 'crank' || !crank.value?.says)))
const toGo = computed(() => (props.withoutDegrees ? null : (crank.value?.to_go_deg ?? null)))
</script>

<template>
  <p
    v-if="crank?.says"
    class="told d-flex ga-4 align-center px-4 py-2 on-panel"
    :class="{ off: crank.off }"
    role="status"
  >
    <b v-if="toGo !== null" class="figure fs-34 lh-none">{{ degrees(Math.round(toGo)) }}</b>
    <span>{{ toGo !== null ? 'to go. ' : '' }}{{ crank.says }}</span>
  </p>
  <p v-for="i in lost" :key="i.kind" class="told lost px-4 py-2 on-panel" role="status">
    The {{ i.name }} is lost: {{ i.detail }}. Work goes on by hand.
  </p>
</template>

<style scoped>
.told {
  margin: 0;
  border-left: 8px solid var(--in);
  font-size: 18px;
}

.told.off {
  border-left-color: var(--tight);
}

.told.lost {
  border-left: 8px dotted var(--undecided);
}
</style>
