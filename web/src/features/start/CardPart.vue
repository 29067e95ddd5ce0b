<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import FoldAway from '@/shared/FoldAway.vue'
import FeelLine from './FeelLine.vue'
import PickOne from '@/shared/PickOne.vue'
import { gaps } from '@/shared/units'
import { aims, rules } from '@/shared/words'
import type { useStart } from './useStart'

/** Which card the valves are judged by, and by which aim, rule and feel. */
const props = defineProps<{
  engine: Schemas['Engine']
  cards: Schemas['Card'][]
  feelFault: boolean
  /** Why the rule of one leaf is proposed; empty: it is not. */ ruleWhy?: string
  /** Of what study the feel is a figure; empty: of none. */ feelWhy?: string
}>()
defineEmits<{ /** Something was chosen that is proposed otherwise. */ byHand: [what: 'card' | 'rule' | 'feel'] }>()
/** What is chosen, of the whole start. */
const form = defineModel<ReturnType<typeof useStart>['form']['value']>('form', { required: true })

const hotCards = computed(() =>
  props.cards.map((c, i) => ({ c, i })).filter(({ c }) => c.state === 'hot' && !c.distrusted),
)
/** What may be chosen; what is not to be used is shown beside it, with why. */
const usable = computed(() => props.cards.map((c, value) => ({ value, c })).filter(({ c }) => !c.distrusted))
const distrusted = computed(() => props.cards.filter((c) => c.distrusted))
/** The passes of a job by the card that is chosen; a hot card may serve its own provisional cold start. */
const passes = computed(() =>
  props.cards[form.value.card]?.state === 'hot'
    ? [
        { value: -1, title: 'Hot only' },
        { value: form.value.card, title: 'Cold first by these figures, provisionally' },
      ]
    : [
        { value: -1, title: 'These figures are final' },
        ...hotCards.value.map(({ c, i }) => ({ value: i, title: `Provisional start, then hot by ${c.source}` })),
      ],
)
/** Where a card says otherwise than the first one. */
const differs = (i: number) => {
  const first = props.cards[0]!
  return i === 0
    ? []
    : props.cards[i]!.differences.map((d) => `${d.what}: ${d.here || '–'} against ${d.first || '–'} (${first.source})`)
}
const window = (l: Schemas['Limits']) => `${gaps(l.in_thou).window(l)} ${gaps(l.in_thou).unit}`
</script>

<template>
  <p v-if="!cards.length" class="quiet">
    The sheet of {{ engine.name }} has no clearance card. Import a sheet that has one.
  </p>
  <PickOne
    v-slot="{ option: { c, value } }"
    v-model="form.card"
    label="Clearance card"
    :options="usable"
    tiles
    @update:model-value="$emit('byHand', 'card')"
  >
    <b>{{ c.state }} · {{ c.source }}</b>
    <small v-if="value >= (engine.cards?.length ?? 0)" class="differs undecided fs-15">of this vehicle alone</small>
    <small v-if="c.date || c.remark" class="quiet">{{ [c.date, c.remark].filter(Boolean).join(' · ') }}</small>
    <span
      ><span class="quiet">intake</span> <span class="figure">{{ window(c.intake) }}</span></span
    >
    <span
      ><span class="quiet">exhaust</span> <span class="figure">{{ window(c.exhaust) }}</span></span
    >
    <small class="quiet">{{ c.holds }}</small>
    <small v-for="d in differs(value)" :key="d" class="differs undecided fs-15">{{ d }}</small>
  </PickOne>
  <ul v-if="distrusted.length" class="ma-0 ps-5" aria-label="Not to be used">
    <li v-for="c in distrusted" :key="c.source">
      <b>Not to be used:</b> {{ c.source }}, {{ c.state }}, intake {{ window(c.intake) }}, exhaust
      {{ window(c.exhaust) }}. {{ c.distrusted }}
    </li>
  </ul>
  <VTextField
    v-if="usable.length > 1"
    v-model="form.cardReason"
    label="Why these clearances? (goes on the job sheet)"
    maxlength="200"
    hide-details
  />
  <span v-if="passes.length > 1" class="quiet fs-15 d-block" aria-hidden="true">Hot pass</span>
  <PickOne v-if="passes.length > 1" v-model="form.hotCard" label="Hot pass" :options="passes" />
  <p v-if="ruleWhy" class="quiet" role="note">By one leaf: {{ ruleWhy }}</p>
  <FeelLine v-if="feelWhy" :feel="form.feel" :says="feelWhy" />
  <FoldAway title="Aim, rule and feel">
    <span class="quiet fs-15 d-block" aria-hidden="true">Aim</span>
    <PickOne v-model="form.aim" label="Aim" :options="aims" @update:model-value="$emit('byHand', 'rule')" />
    <VTextField
      v-if="form.aim !== 'nominal'"
      v-model="form.aimReason"
      label="Why the loose end"
      maxlength="200"
      hide-details
    />
    <span class="quiet fs-15 d-block" aria-hidden="true">Rule</span>
    <PickOne v-model="form.rule" label="Rule" :options="rules" @update:model-value="$emit('byHand', 'rule')" />
    <VTextField
      v-model="form.feel"
      label="Uncertainty of your feel, either way"
      suffix="mm"
      inputmode="decimal"
      hide-details
      :error="feelFault"
      @update:model-value="$emit('byHand', 'feel')"
    />
  </FoldAway>
</template>
