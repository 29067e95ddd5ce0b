<script setup lang="ts">
import { mine } from '@/shared/mine'
import { decimal, slip } from '@/shared/decimal'
import { computed, onMounted, ref } from 'vue'
import { answered, api, Refused, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import FaultList from '@/shared/FaultList.vue'
import { ToldBar } from '@/shared/later'
import { people } from '@/shared/session'
import { mm, when } from '@/shared/units'
import { useDraft } from '@/shared/useDraft'
import { useProbe } from '@/shared/useProbe'
import ArchivePart from './ArchivePart.vue'
import BackupPart from './BackupPart.vue'
import HandsFreePart from './HandsFreePart.vue'
import InstrumentsPart from './InstrumentsPart.vue'
import ReachPart from './ReachPart.vue'
import SealPart from './SealPart.vue'
import StockPart, { whole, type Counted } from './StockPart.vue'
import UnitsPart from './UnitsPart.vue'

const shop = ref<Schemas['Shop'] | null>(null)
const stock = ref<Counted[]>([])
const sizes = ref({ from: '', to: '', step: '' })
const trouble = ref('')
const faults = ref<{ location: string; message: string }[]>([])
const said = ref('')
const { probe, again } = useProbe()

function take(s: Schemas['Shop']) {
  shop.value = s
  stock.value = s.shim_stock.map((c) => ({ size: mm(c.shim_mm), count: String(c.count) }))
  sizes.value = { from: mm(s.shim_sizes.from_mm), to: mm(s.shim_sizes.to_mm), step: mm(s.shim_sizes.step_mm) }
  stored.value = JSON.stringify(typed.value)
}

const typed = computed(() => ({ address: shop.value?.probe_address ?? '', sizes: sizes.value, stock: stock.value }))
const stored = ref('')
const draft = useDraft(
  'shop',
  () => (JSON.stringify(typed.value) === stored.value ? null : typed.value),
  (kept) => {
    shop.value!.probe_address = kept.address
    sizes.value = kept.sizes
    stock.value = kept.stock
  },
)

/** Figures that are none, each with its place: a slip is refused and never stored as something else. */
function slips() {
  const out: { location: string; message: string }[] = []
  const note = (location: string, message: string) => message && out.push({ location, message })
  note('Shims from', slip(sizes.value.from))
  note('Shims to', slip(sizes.value.to))
  note('Step', slip(sizes.value.step))
  for (const [i, s] of stock.value.entries()) {
    if (!s.size.trim()) continue
    note(`Size, line ${i + 1}`, slip(s.size))
    note(`How many, line ${i + 1}`, whole(s.count) === null ? `“${s.count.trim()}” is no count: whole numbers.` : '')
  }
  return out
}

async function load() {
  try {
    take(await readOnce(reads.shop()))
    if (draft.restore()) said.value = 'What was typed here before and is not saved is still there.'
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
onMounted(load)

async function save() {
  trouble.value = ''
  faults.value = slips()
  said.value = ''
  if (faults.value.length) {
    trouble.value = 'This cannot be saved: a figure is not a number.'
    return
  }
  try {
    const body = {
      version: shop.value!.version,
      probe_address: shop.value!.probe_address.trim(),
      shim_sizes: {
        from_mm: decimal(sizes.value.from)!,
        to_mm: decimal(sizes.value.to)!,
        step_mm: decimal(sizes.value.step)!,
      },
      shim_stock: stock.value
        .filter((s) => s.size.trim())
        .map((s) => ({ shim_mm: decimal(s.size)!, count: whole(s.count)! })),
    }
    take(await answered(api.PUT('/api/v1/shop', { body })))
    said.value = 'Saved.'
    await again()
  } catch (e) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
    if (e instanceof Refused && e.problem.status === 409) await countAgain()
  }
}

/** A shim was used, or somebody else counted, meanwhile: the stock is shown as it stands now, the rest as it was typed. */
async function countAgain() {
  const { address, sizes: typedSizes } = typed.value
  take(await readOnce(reads.shop()))
  shop.value!.probe_address = address
  sizes.value = typedSizes
  faults.value = []
  trouble.value =
    'Shims were used or counted elsewhere meanwhile: the stock below is as it stands now. Look at it, and save again.'
}
</script>

<template>
  <AppPage
    title="Workshop"
    stays
    :ready="shop !== null"
    :trouble="trouble"
    failed="The workshop’s settings could not be read."
    @again="load"
  >
    <template #bar>
      <VBtn variant="flat" size="small" :disabled="!shop" @click="save">Save</VBtn>
    </template>
    <div v-if="shop" class="shop">
      <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was saved." />
      <VAlert v-if="shop.damaged" role="alert">{{ shop.damaged }}</VAlert>
      <ToldBar v-if="said" v-model="said" />
      <section v-if="people.session.value?.places?.length" class="d-grid ga-2">
        <h2 class="fs-24">Gathered, and looked at only</h2>
        <p v-for="p in people.session.value.places" :key="p.name" class="fs-20">
          <b>{{ p.name }}</b>, as it was {{ when(p.made) }}
        </p>
        <p class="quiet">What is entered, is entered where the vehicle is; gather again to see it here.</p>
      </section>
      <section v-if="people.may('run')" class="d-grid ga-3">
        <h2 class="fs-24">People</h2>
        <p v-if="people.session.value?.open" class="quiet">
          Nobody is set up: whoever opens this program can do everything, and nothing says who did it.
        </p>
        <div>
          <VBtn to="/people">{{ people.session.value?.open ? 'Set up people…' : 'People and audit list…' }}</VBtn>
        </div>
      </section>
      <ReachPart />
      <BackupPart />
      <SealPart />
      <UnitsPart />
      <HandsFreePart />
      <section class="d-grid ga-3">
        <h2 class="fs-24">Temperature probe</h2>
        <p class="quiet">
          A device that tells the engine’s temperature over the workshop’s network, by the line protocol of
          docs/probe.md.
          <code class="in-figures">metronix probe</code> is a simulated one. Left empty, temperatures are typed.
        </p>
        <VTextField
          v-model="shop.probe_address"
          label="Address"
          placeholder="127.0.0.1:7070"
          persistent-placeholder
          maxlength="80"
          hide-details
        />
        <p v-if="probe && probe.state !== 'off'" role="status" class="state" :class="probe.state">
          {{
            probe.state === 'ok'
              ? `Engine ${mine('temperature').say(probe.engine_c!)}, ambient ${mine('temperature').say(probe.ambient_c!)}.`
              : probe.state === 'lost'
                ? `Lost: ${probe.detail}. Temperatures are typed meanwhile.`
                : 'Reaching it…'
          }}
        </p>
      </section>
      <InstrumentsPart />
      <section class="d-grid ga-3">
        <h2 class="fs-24">Shim sizes available</h2>
        <div class="three fits-160 d-grid ga-3">
          <VTextField v-model="sizes.from" label="From" suffix="mm" inputmode="decimal" hide-details />
          <VTextField v-model="sizes.to" label="To" suffix="mm" inputmode="decimal" hide-details />
          <VTextField v-model="sizes.step" label="Step" suffix="mm" inputmode="decimal" hide-details />
        </div>
      </section>
      <section class="d-grid ga-3">
        <h2 class="fs-24">Shims in stock</h2>
        <StockPart v-model="stock" />
      </section>
      <ArchivePart @said="(t) => (said = t)" @trouble="(t) => ((trouble = t), (faults = []))" />
    </div>
  </AppPage>
</template>

<style scoped>
.shop {
  display: grid;
  gap: 30px;
  max-width: 900px;
}

.state,
.said {
  padding: 8px 16px;
  border-left: 8px solid var(--in);
  background: var(--panel);
}

.state.lost {
  border-left: 8px dotted var(--undecided);
}
</style>
