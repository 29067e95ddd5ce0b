<script setup lang="ts">
import { computed, onMounted } from 'vue'
import AppPage from '@/shared/AppPage.vue'
import FaultList from '@/shared/FaultList.vue'
import PickFile from '@/shared/PickFile.vue'
import PickOne from '@/shared/PickOne.vue'
import { ToldBar } from '@/shared/later'
import ReachStrip from './ReachStrip.vue'
import LeafLine from '@/shared/LeafLine.vue'
import { useGauges } from './useGauges'

const g = useGauges()
const { sets, chosen, name, checked, rows, trouble, faults, said, removed, lower, upper, reach, reachTrouble, dirty } =
  g
onMounted(() => g.load())
const damaged = computed(() => sets.value?.find((s) => s.id === chosen.value)?.damaged)

const faultsOf = (i: number) =>
  faults.value.filter((f) => f.location.startsWith(`body.leaves[${i}].`)).map((f) => f.message)
const others = computed(() => faults.value.filter((f) => !f.location.startsWith('body.leaves[')))

const plain = (t: string) => Number(t.replace(',', '.')) || 0
</script>

<template>
  <AppPage title="Feelers" :sub="sets ? `${sets.length} sets` : ''" stays>
    <template #bar>
      <VBtn size="small" @click="g.look(undefined)">New set</VBtn>
      <VBtn variant="flat" size="small" :disabled="!dirty" @click="g.save()">Save</VBtn>
    </template>
    <div class="gauges d-grid ga-4">
      <PickOne
        v-slot="{ option: { s } }"
        :model-value="chosen"
        class="sets"
        label="Feeler sets"
        :options="(sets ?? []).map((s) => ({ value: s.id, s }))"
        @update:model-value="(id) => g.look(sets!.find((s) => s.id === id))"
      >
        {{ s.name }} <small class="quiet">{{ s.leaves }} leaves</small>
      </PickOne>
      <div class="files d-flex flex-wrap ga-2">
        <PickFile label="Import CSV" accept=".csv,text/csv" @picked="g.importFile" />
        <VBtn v-if="chosen" :href="`/api/v1/gauge-sets/${chosen}/csv`" download>Export CSV</VBtn>
      </div>
      <FaultList v-if="trouble" :title="trouble" :faults="others" after="Nothing was saved." />
      <ToldBar v-if="said" v-model="said" :action="removed ? 'Undo' : ''" @act="g.putBack()" />
      <section class="two d-grid ga-6">
        <div class="set d-grid ga-3 align-content-start">
          <div class="head d-grid ga-3">
            <VTextField v-model="name" label="Set" maxlength="100" hide-details density="comfortable" />
            <VTextField
              v-model="checked"
              label="Checked on"
              type="date"
              hide-details
              density="comfortable"
              persistent-placeholder
            />
          </div>
          <LeafLine v-if="!rows.length" @take="g.takeLine" />
          <VAlert v-if="damaged" role="alert">
            The leaves of this set cannot be read: {{ damaged }}. Enter them again and save.
          </VAlert>
          <p v-if="!checked" class="quiet small fs-16">
            Never checked. A leaf counts as it is marked, ± 0.005 mm; with a micrometer’s figure ± 0.002 mm.
          </p>
          <div class="position-relative overflow-x-auto" tabindex="0" role="region" aria-label="Leaves">
            <VTable density="compact">
              <thead>
                <tr>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">Marked</th>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">Unit</th>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">Micrometer, mm</th>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">Shape</th>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">State</th>
                  <th class="pa-1 quiet fs-15 font-weight-regular text-left">
                    <span class="sr position-absolute overflow-hidden">Remove</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                <template v-for="(r, i) in rows" :key="i">
                  <tr :class="{ gone: r.missing }">
                    <td class="py-1 px-1">
                      <VTextField
                        v-model="r.marked"
                        class="cell figure"
                        density="compact"
                        hide-details
                        single-line
                        inputmode="decimal"
                        :aria-label="`Leaf ${i + 1}, marked`"
                      />
                    </td>
                    <td class="py-1 px-1">
                      <VBtn
                        size="small"
                        :aria-label="`${r.thou ? 'in' : 'mm'}, unit of leaf ${i + 1}`"
                        @click="r.thou = !r.thou"
                      >
                        {{ r.thou ? 'in' : 'mm' }}
                      </VBtn>
                    </td>
                    <td class="py-1 px-1">
                      <VTextField
                        v-model="r.measured"
                        class="cell figure"
                        density="compact"
                        hide-details
                        single-line
                        inputmode="decimal"
                        placeholder="–"
                        :aria-label="`Leaf ${i + 1}, micrometer, mm`"
                      />
                    </td>
                    <td class="py-1 px-1">
                      <VBtn
                        size="small"
                        :aria-label="`${r.angled ? 'angled' : 'straight'}, shape of leaf ${i + 1}`"
                        @click="r.angled = !r.angled"
                      >
                        {{ r.angled ? 'angled' : 'straight' }}
                      </VBtn>
                    </td>
                    <td class="py-1 px-1">
                      <VBtn
                        size="small"
                        :aria-label="`${r.missing ? 'missing' : 'here'}, state of leaf ${i + 1}`"
                        @click="r.missing = !r.missing"
                      >
                        {{ r.missing ? 'missing' : 'here' }}
                      </VBtn>
                    </td>
                    <td class="py-1 px-1">
                      <VBtn size="small" :aria-label="`Remove leaf ${i + 1}`" @click="rows.splice(i, 1)"> ✕ </VBtn>
                    </td>
                  </tr>
                  <tr v-for="m in faultsOf(i)" :key="m">
                    <td colspan="6" class="fault fs-16 py-1 px-3 pt-1 pb-2" role="alert">{{ m }}</td>
                  </tr>
                </template>
              </tbody>
            </VTable>
          </div>
          <div class="do d-flex flex-wrap ga-2">
            <VBtn size="small" @click="g.add()">Another leaf</VBtn>
            <VBtn v-if="chosen" size="small" @click="g.remove()">Remove the set</VBtn>
          </div>
        </div>
        <div class="reach d-grid ga-3 align-content-start">
          <h2>Sizes you can make</h2>
          <div class="head d-grid ga-3">
            <VTextField
              v-model="lower"
              label="From"
              suffix="mm"
              inputmode="decimal"
              hide-details
              density="comfortable"
            />
            <VTextField v-model="upper" label="To" suffix="mm" inputmode="decimal" hide-details density="comfortable" />
          </div>
          <VAlert v-if="reachTrouble">{{ reachTrouble }}</VAlert>
          <ReachStrip
            v-else-if="reach"
            :lower="plain(lower)"
            :upper="plain(upper)"
            :stacks="reach.stacks"
            :holes="reach.holes"
          />
          <p class="quiet small fs-16">
            Leaves rust if stored dry: wipe them with oil. Slide a leaf straight, and take it out before the crank is
            turned.
          </p>
        </div>
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.two {
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
}

.head {
  grid-template-columns: 3fr 2fr;
}

table {
  width: 100%;
  border-collapse: collapse;
}

.cell {
  min-width: 96px;
}

.cell :deep(input) {
  min-height: 44px;
  padding-block: 0;
  font-family: var(--figures);
  font-size: 20px;
  font-weight: 700;
}

.gone .cell :deep(input) {
  color: var(--quiet);
  text-decoration: line-through;
}

td .v-btn {
  width: 100%;
  padding: 2px 10px;
  font-size: 16px;
}

.fault {
  border-left: 6px solid var(--tight);
}

.sr {
  width: 1px;
  height: 1px;
}

@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  .reach {
    order: -1;
  }
}
</style>
