<script setup lang="ts">
import { ref } from 'vue'
import { answered, api, Refused, type Schemas } from '@/shared/api/client'
import CardFields from '@/features/engines/CardFields.vue'
import { mine } from '@/shared/mine'

/** The cards of one vehicle alone: a changed cam has clearances of its own, which are not those of its engine's type. */
const props = defineProps<{ history: Schemas['VehicleHistory'] }>()
const emit = defineEmits<{ kept: [] }>()

const cards = ref<Schemas['ClearanceCard'][] | null>(null)
const trouble = ref('')
const faults = ref<{ location: string; message: string }[]>([])
const said = (location: string) =>
  faults.value.filter((f) => f.location.replace('body.', '').startsWith(location)).map((f) => f.message)

function edit() {
  cards.value = JSON.parse(JSON.stringify(props.history.own_cards)) as Schemas['ClearanceCard'][]
  if (!cards.value.length) add()
}
const add = () => cards.value?.push({ source: 'cam grinder’s card', state: 'cold', intake: {}, exhaust: {} })
async function keep() {
  trouble.value = ''
  faults.value = []
  try {
    await answered(
      api.PUT('/api/v1/vehicles/{id}/cards', {
        params: { path: { id: props.history.vehicle.id } },
        body: { cards: cards.value! } as never,
      }),
    )
    cards.value = null
    emit('kept')
  } catch (e) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }
}
const gap = (l: Schemas['Limits']) => `${mine('length').bare(l.lower_mm)}–${mine('length').say(l.upper_mm)}`
</script>

<template>
  <section class="d-grid ga-3">
    <h2 class="fs-28">Cards of this vehicle alone</h2>
    <p class="quiet">Where its cam was changed, its clearances are its own. A job of it is started by either.</p>
    <ul v-if="!cards && history.vehicle.cards.length" class="ma-0 ps-5">
      <li v-for="c in history.vehicle.cards" :key="c.source">
        <b>{{ c.state }} · {{ c.source }}</b
        >: intake <span class="figure">{{ gap(c.intake) }}</span>, exhaust
        <span class="figure">{{ gap(c.exhaust) }}</span>
      </li>
    </ul>
    <VBtn v-if="!cards" size="small" class="justify-self-start" @click="edit">{{
      history.own_cards.length ? 'Change them…' : 'Add one…'
    }}</VBtn>
    <template v-else>
      <VAlert v-if="trouble">{{ trouble }}</VAlert>
      <CardFields
        v-for="(c, i) in cards"
        :key="i"
        v-model="cards[i]!"
        :at="`cards[${i}]`"
        :said="said"
        :warned="() => []"
        :aria-label="c.source"
        @remove="cards.splice(i, 1)"
      />
      <div class="do d-flex flex-wrap ga-2">
        <VBtn size="small" @click="add">Another card</VBtn>
        <VBtn size="small" @click="cards = null">Go back</VBtn>
        <VBtn size="small" variant="flat" @click="keep">Keep the cards</VBtn>
      </div>
    </template>
  </section>
</template>
