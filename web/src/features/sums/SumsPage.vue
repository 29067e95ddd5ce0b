<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Refused } from '@/shared/api/client'
import { compute } from '@/shared/api/compute'
import TopBar from '@/shared/TopBar.vue'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import ScrewDial from '../bench/ScrewDial.vue'
import { sums, type Answer, type Values } from './sums'

const route = useRoute()
const router = useRouter()
const sum = computed(() => sums.find((s) => s.id === route.params.sum) ?? sums[0]!)
const values = ref<Values>({})
const answer = ref<Answer | null>(null)
const faults = ref<{ location: string; message: string }[]>([])
const copied = ref('')
const fields = computed(() => sum.value.fields.filter((f) => !f.when || f.when(values.value)))

watch(
  sum,
  (s) => {
    values.value = Object.fromEntries(s.fields.map((f) => [f.key, String(route.query[f.key] ?? f.start)]))
    copied.value = ''
  },
  { immediate: true },
)

let asked = 0
let timer = 0
watch(
  values,
  () => {
    clearTimeout(timer)
    timer = window.setTimeout(() => void reckon(), 120)
  },
  { deep: true, immediate: true },
)

async function reckon() {
  const mine = ++asked
  const s = sum.value
  const v = { ...values.value }
  void router.replace({ params: { sum: s.id }, query: v })
  try {
    const got = await compute<unknown>(s.operation, s.request(v))
    if (mine !== asked) return
    answer.value = s.answer(got, v)
    faults.value = []
  } catch (e) {
    if (mine !== asked) return
    answer.value = null
    faults.value =
      e instanceof Refused && e.faults.length ? e.faults : [{ location: '', message: (e as Error).message }]
  }
}

async function share() {
  try {
    await navigator.clipboard.writeText(location.href)
    copied.value = 'The address of this sum is copied.'
  } catch {
    copied.value = location.href
  }
}
</script>

<template>
  <TopBar title="Sums">
    <button class="mx-btn small" type="button" @click="share">Copy its address</button>
  </TopBar>
  <main class="page sums">
    <nav class="which" aria-label="Sums">
      <RouterLink v-for="s in sums" :key="s.id" class="mx-btn" :class="{ on: s.id === sum.id }" :to="`/sums/${s.id}`">{{
        s.name
      }}</RouterLink>
    </nav>
    <p v-if="copied" class="quiet" role="status">{{ copied }}</p>
    <section class="two">
      <form class="form" @submit.prevent>
        <h2>{{ sum.name }}</h2>
        <p class="quiet">{{ sum.about }}</p>
        <template v-for="f in fields" :key="`${sum.id} ${f.key}`">
          <VSelect
            v-if="f.kind === 'choice'"
            v-model="values[f.key]"
            :items="f.options"
            :label="f.label"
            variant="outlined"
            hide-details
          />
          <VTextarea
            v-else-if="f.kind === 'lines'"
            v-model="values[f.key]"
            :label="f.label"
            :hint="f.hint"
            :persistent-hint="Boolean(f.hint)"
            :hide-details="!f.hint"
            rows="2"
            auto-grow
            variant="outlined"
            class="mono"
          />
          <VTextField
            v-else
            v-model="values[f.key]"
            :label="f.label"
            :suffix="f.unit"
            :hint="f.hint"
            :persistent-hint="Boolean(f.hint)"
            :hide-details="!f.hint"
            inputmode="decimal"
            class="mono"
          />
        </template>
      </form>
      <div class="answer" aria-live="polite">
        <template v-if="answer">
          <div v-if="answer.screw" class="dial"><ScrewDial :screw="answer.screw" nut /></div>
          <p class="large" :class="answer.verdict">
            <VerdictGlyph v-if="answer.verdict" :verdict="answer.verdict" class="glyph" /> {{ answer.large }}
          </p>
          <p v-for="l in answer.lines" :key="l">{{ l }}</p>
        </template>
        <ul v-else-if="faults.length" class="faults" role="alert">
          <li v-for="f in faults" :key="f.location + f.message">
            <code>{{ f.location }}</code> {{ f.message }}
          </li>
        </ul>
        <p class="quiet small">The maker’s book and local rules win over any figure here.</p>
      </div>
    </section>
  </main>
</template>

<style scoped>
.sums {
  display: grid;
  gap: 18px;
}

.which {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.which .on {
  border-color: var(--brass);
  background: var(--wash);
  box-shadow: inset 0 0 0 1px var(--brass);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 40px;
}

.form {
  display: grid;
  gap: 14px;
  align-content: start;
}

.mono :deep(input),
.mono :deep(textarea) {
  font-family: var(--figures);
  font-size: 20px;
}

.answer {
  display: grid;
  gap: 12px;
  align-content: start;
  font-size: 20px;
}

.dial {
  width: 220px;
  height: 220px;
}

.large {
  color: var(--brass);
  font-size: clamp(34px, 4.4vw, 58px);
  font-weight: 700;
  line-height: 1.1;
}

.large.in {
  color: var(--in);
}

.large.tight {
  color: var(--tight);
}

.large.loose {
  color: var(--loose);
}

.large.undecided {
  color: var(--undecided);
}

.glyph {
  width: 52px;
  height: 52px;
  vertical-align: -6px;
}

.faults {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 12px 18px 12px 34px;
  border-left: 8px solid var(--tight);
  background: var(--panel);
}

code {
  color: var(--brass);
  font-family: var(--figures);
}

.small {
  font-size: 16px;
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 20px;
  }

  .answer {
    order: -1;
  }
}
</style>
