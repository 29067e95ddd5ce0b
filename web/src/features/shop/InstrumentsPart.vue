<script setup lang="ts">
import { ref, watch } from 'vue'
import { answered, api, Refused, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import FaultList from '@/shared/FaultList.vue'
import { decimal, slip } from '@/shared/decimal'
import { people } from '@/shared/session'
import { askInstruments } from '@/shared/useInstruments'

/** Where the instruments at the engine stand, what they tell, and how hard a leaf pulls by one's own hand. */
const kinds: { kind: Schemas['InstrumentView']['kind']; title: string; does: string; port: number }[] = [
  { kind: 'crank', title: 'Crank encoder', does: 'shows where the crank stands and waits until it does', port: 7071 },
  { kind: 'dial', title: 'Dial indicator', does: 'its button fills a reading in', port: 7072 },
  { kind: 'wrench', title: 'Torque wrench', does: 'says at what it clicked on the lock nut', port: 7073 },
  { kind: 'pull', title: 'Pull scale', does: 'says how a leaf feels by your own limits', port: 7074 },
]
const { list, again } = askInstruments()
const addresses = ref<Schemas['InstrumentAddresses'] | null>(null)
const pull = ref({ from: '', to: '' })
const trouble = ref('')
const faults = ref<{ location: string; message: string }[]>([])
const said = ref('')

async function load() {
  try {
    const seen = await readOnce(reads.instruments())
    addresses.value = seen.addresses
    pull.value = { from: String(seen.pull.from_n), to: String(seen.pull.to_n) }
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
void load()
watch([addresses, pull], () => (said.value = ''), { deep: true })

async function save(what: () => Promise<unknown>) {
  trouble.value = ''
  faults.value = []
  try {
    await what()
    await again()
    said.value = 'Saved.'
  } catch (e) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }
}
const saveAddresses = () =>
  save(async () => {
    const { crank, dial, wrench, pull } = addresses.value!
    const body = { crank: crank.trim(), dial: dial.trim(), wrench: wrench.trim(), pull: pull.trim() }
    addresses.value = await answered(api.PUT('/api/v1/instruments', { body }))
  })
const savePull = () =>
  save(async () => {
    const [from, to] = [decimal(pull.value.from), decimal(pull.value.to)]
    if (from === null || to === null) throw new Error(slip(pull.value.from) || slip(pull.value.to))
    await answered(api.PUT('/api/v1/my-pull', { body: { from_n: from, to_n: to } }))
  })

function tells(kind: string): string {
  const i = list.value.find((x) => x.kind === kind)
  if (!i) return ''
  if (i.state === 'ok')
    return `Shows ${i.value}${i.kind === 'crank' ? '' : ' '}${i.unit}${i.kind === 'crank' && i.still ? ', and stands' : ''}.`
  return i.state === 'lost' ? `Lost: ${i.detail}. Work goes on by hand.` : 'Reaching it…'
}
</script>

<template>
  <section v-if="addresses" class="d-grid ga-3" aria-label="Instruments at the engine">
    <h2 class="fs-24">Instruments at the engine</h2>
    <p class="quiet">
      Devices, or bridges to them, by the line protocol of docs/instruments.md.
      <code class="in-figures">metronix instrument crank</code> is a simulated one. What one tells is shown and fills
      fields; nothing of it is believed until you confirm it. Left empty, there is none.
    </p>
    <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was saved." />
    <div v-for="k in kinds" :key="k.kind" class="d-grid ga-1">
      <VTextField
        v-model="addresses[k.kind]"
        :label="k.title"
        :placeholder="`127.0.0.1:${k.port}`"
        persistent-placeholder
        maxlength="80"
        :disabled="!people.may('keep')"
        hide-details
      />
      <span class="quiet fs-16">{{ k.does }}</span>
      <p v-if="tells(k.kind)" class="px-4 py-1 on-panel bar-brass fs-18" role="status">{{ tells(k.kind) }}</p>
    </div>
    <div class="d-flex flex-wrap ga-3 align-center">
      <VBtn :disabled="!people.may('keep')" @click="saveAddresses">Save the addresses</VBtn>
      <b v-if="said" role="status">{{ said }}</b>
    </div>
    <h3 class="fs-20">How hard a leaf pulls that drags as it should, by your own hand</h3>
    <div class="d-flex flex-wrap ga-3 align-center">
      <VTextField v-model="pull.from" class="newtons" label="From" suffix="N" inputmode="decimal" hide-details />
      <VTextField v-model="pull.to" class="newtons" label="To" suffix="N" inputmode="decimal" hide-details />
      <VBtn @click="savePull">Save my limits</VBtn>
    </div>
  </section>
</template>

<style scoped>
.newtons {
  flex: 1 1 120px;
  max-width: 200px;
}
</style>
