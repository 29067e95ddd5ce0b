<script setup lang="ts">
import { mine } from '@/shared/mine'
import { decimal, slip } from '@/shared/decimal'
import { computed, onMounted, ref } from 'vue'
import { answered, api, Refused, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import FaultList from '@/shared/FaultList.vue'
import PickFile from '@/shared/PickFile.vue'
import FoldAway from '@/shared/FoldAway.vue'
import NumberField from '@/shared/NumberField.vue'
import { ToldBar } from '@/shared/later'
import { mm } from '@/shared/units'
import { useDraft } from '@/shared/useDraft'
import { useProbe } from '@/shared/useProbe'
import UnitsPart from './UnitsPart.vue'

const shop = ref<Schemas['Shop'] | null>(null)
const stock = ref<{ size: string; count: string }[]>([])
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

/** A count as people write it down: a whole number, and an empty field is none of that size. */
const whole = (t: string) => (/^\d{0,4}$/.test(t.trim()) ? Number(t) : null)

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

/** A kit as it comes in its case: sizes in steps, so many of each. */
const kit = ref<{ from?: number; to?: number; step?: number; each?: number }>({ each: 1 })
const mostKit = 200
const kitSizes = computed(() => {
  const { from, to, step, each } = kit.value
  if (!from || !to || !step || !each || to < from || step <= 0 || !Number.isInteger(each)) return []
  const n = Math.floor((to - from) / step + 1e-9) + 1
  return n > mostKit ? [] : Array.from({ length: n }, (_, i) => mm(from + i * step))
})
/** What is in stock already is counted up. */
function addKit() {
  for (const size of kitSizes.value) {
    const has = stock.value.find((s) => decimal(s.size) === decimal(size))
    if (has) has.count = String((whole(has.count) ?? 0) + kit.value.each!)
    else stock.value.push({ size, count: String(kit.value.each) })
  }
  kit.value = { each: 1 }
}

/** Takes an archive in: all of it, or nothing. */
async function takeIn(archive: File) {
  trouble.value = ''
  faults.value = []
  said.value = ''
  try {
    const got = await answered(
      api.POST('/api/v1/archive', {
        body: archive as unknown as string,
        bodySerializer: (b) => b,
        headers: { 'Content-Type': 'application/zip' },
      }),
    )
    said.value = `Taken in: ${got.engines} engines, ${got.gauge_sets} gauge sets, ${got.vehicles} vehicles, ${got.jobs} jobs; ${got.already} were here already.`
    if (got.left_out.length)
      trouble.value = `Not in the archive, because they could not be read when it was made: ${got.left_out.join('; ')}.`
  } catch (e) {
    trouble.value = (e as Error).message
  }
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
      <UnitsPart />
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
      <section class="d-grid ga-3">
        <h2 class="fs-24">Shim sizes available</h2>
        <div class="three d-grid ga-3">
          <VTextField v-model="sizes.from" label="From" suffix="mm" inputmode="decimal" hide-details />
          <VTextField v-model="sizes.to" label="To" suffix="mm" inputmode="decimal" hide-details />
          <VTextField v-model="sizes.step" label="Step" suffix="mm" inputmode="decimal" hide-details />
        </div>
      </section>
      <section class="d-grid ga-3">
        <h2 class="fs-24">Shims in stock</h2>
        <p v-if="stock.length === 0" class="quiet">None listed. Stock is used before anything is ordered.</p>
        <div class="stock d-grid ga-2">
          <div v-for="(s, i) in stock" :key="i" class="row d-grid ga-2 align-center">
            <VTextField
              v-model="s.size"
              label="Size"
              suffix="mm"
              inputmode="decimal"
              hide-details
              density="comfortable"
            />
            <VTextField v-model="s.count" label="How many" inputmode="numeric" hide-details density="comfortable" />
            <VBtn size="small" :aria-label="`Remove size ${s.size}`" @click="stock.splice(i, 1)"> ✕ </VBtn>
          </div>
        </div>
        <FoldAway title="Add a kit of shims or buckets">
          <div class="three d-grid ga-3">
            <NumberField v-model="kit.from" label="From" unit="mm" />
            <NumberField v-model="kit.to" label="To" unit="mm" />
            <NumberField v-model="kit.step" label="Step" unit="mm" />
            <NumberField v-model="kit.each" label="Of each" />
          </div>
          <VBtn size="small" :disabled="!kitSizes.length" @click="addKit">
            Add {{ kitSizes.length || 'the' }} sizes to the list
          </VBtn>
        </FoldAway>
        <VBtn class="add justify-self-start" size="small" @click="stock.push({ size: '', count: '1' })">
          Another size
        </VBtn>
      </section>
      <section class="d-grid ga-3">
        <h2 class="fs-24">Everything that is stored</h2>
        <p class="quiet">
          Engines, gauge sets, vehicles and every job with its whole list, as a zip of JSON and CSV (docs/formats.md).
        </p>
        <div class="files d-flex flex-wrap ga-2">
          <VBtn size="small" href="/api/v1/archive.zip">Export everything</VBtn>
          <PickFile label="Import an archive" accept=".zip,application/zip" @picked="takeIn" />
        </div>
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.shop {
  display: grid;
  gap: 30px;
  max-width: 900px;
}

.three {
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
}

.stock {
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
}

.row {
  grid-template-columns: 3fr 2fr auto;
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
