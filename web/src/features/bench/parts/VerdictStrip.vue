<script setup lang="ts">
import { computed } from 'vue'
import type { Judgement, Schemas } from '@/shared/api/client'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import { degrees } from '@/shared/units'
import { verdictOf } from '@/shared/words'
import WhyLink from '@/shared/WhyLink.vue'

const props = defineProps<{
  judgement: Judgement
  screw?: Schemas['Screw'] | null
  /** The valve, where it is one kept before. */ kept?: string
  /** Nothing leads on from it. */ bare?: boolean
  /** The leaves that would prove its drag. */ cross?: Schemas['Cross'] | null
}>()
defineEmits<{ cross: [] }>()
/** In, and the doubt of leaf and feel reaches over a limit. */
const close = computed(() => (props.judgement.verdict === 'in' && !props.judgement.sure ? ', close' : ''))
</script>

<template>
  <section
    class="strip d-flex flex-wrap align-center gr-1 gc-3 py-2 px-3 on-panel"
    :class="[judgement.verdict, { kept }]"
    role="status"
  >
    <VerdictGlyph :verdict="judgement.verdict" class="sign fs-30" />
    <strong class="word lh-none" :class="{ long: judgement.conflict }">{{
      judgement.conflict
        ? 'Readings disagree'
        : kept
          ? `${kept} ${verdictOf(judgement).toLowerCase()}${close}`
          : verdictOf(judgement) + close
    }}</strong>
    <p class="why fs-16 lh-tight">
      {{ judgement.why }} <WhyLink v-if="!bare && !kept" page="drag" :at="judgement.verdict" />
      <template v-if="screw?.turn_deg != null"
        >Screw {{ screw.travel }} {{ degrees(screw.turn_deg) }}, {{ screw.rotation }}.</template
      >
    </p>
    <VBtn v-if="kept && cross" class="cross" size="small" @click="$emit('cross')">
      Cross-check {{ cross.down }} / {{ cross.up }}
    </VBtn>
  </section>
</template>

<style scoped>
.strip {
  min-height: 84px;
  border-left: 8px solid var(--tone);
}

.strip.undecided {
  border-left-style: dotted;
}

.word {
  color: var(--tone);
  font-size: 32px;
}

.word.long {
  font-size: 24px;
}

.why {
  flex: 1 1 230px;
}

/* The ladder above keeps three rungs. */
@media (height <= 820px) {
  .strip {
    min-height: 64px;
    padding-block: 4px;
  }

  .word {
    font-size: 28px;
  }
}

@media (width <= 480px) {
  .strip {
    min-height: 64px;
    padding-block: 4px;
  }

  .why {
    font-size: 15px;
  }
}

@media (width <= 1000px) and (height <= 480px) {
  .strip {
    min-height: 40px;
    padding: 2px 12px;
  }

  .word {
    font-size: 24px;
  }

  .why {
    flex-basis: 140px;
    min-width: 0;
    font-size: 15px;
  }
}
</style>
