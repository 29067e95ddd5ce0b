<script setup lang="ts">
import { vRadios } from '@/shared/radios'
import { computed, onMounted } from 'vue'
import FaultList from '@/shared/FaultList.vue'
import TopBar from '@/shared/TopBar.vue'
import ReachStrip from './ReachStrip.vue'
import { useGauges } from './useGauges'

const g = useGauges()
const { sets, chosen, name, checked, rows, trouble, faults, said, removed, lower, upper, reach, reachTrouble, dirty } =
  g
onMounted(() => g.load())

const faultsOf = (i: number) =>
  faults.value.filter((f) => f.location.startsWith(`body.leaves[${i}].`)).map((f) => f.message)
const others = computed(() => faults.value.filter((f) => !f.location.startsWith('body.leaves[')))

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void g.importFile(file).finally(() => (input.value = ''))
}
const plain = (t: string) => Number(t.replace(',', '.')) || 0
</script>

<template>
  <TopBar title="Gauges" :sub="sets ? `${sets.length} sets` : ''" stays>
    <button class="mx-btn small" type="button" @click="g.look(undefined)">New set</button>
    <button class="mx-btn primary small" type="button" :disabled="!dirty" @click="g.save()">Save</button>
  </TopBar>
  <main class="page gauges">
    <div v-radios class="sets" role="radiogroup" aria-label="Gauge sets">
      <button
        v-for="s in sets ?? []"
        :key="s.id"
        type="button"
        role="radio"
        class="mx-btn"
        :class="{ on: s.id === chosen }"
        :aria-checked="s.id === chosen"
        @click="g.look(s)"
      >
        {{ s.name }} <small class="quiet">{{ s.leaves }} leaves</small>
      </button>
      <label class="mx-btn mx-file"
        >Import CSV<input type="file" accept=".csv,text/csv" aria-label="Import CSV" @change="picked"
      /></label>
      <a v-if="chosen" class="mx-btn" :href="`/api/v1/gauge-sets/${chosen}/csv`" download>Export CSV</a>
    </div>
    <FaultList v-if="trouble" :title="trouble" :faults="others" after="Nothing was saved." />
    <p v-if="said" class="said" role="status">
      {{ said }} <button v-if="removed" class="mx-btn small" type="button" @click="g.putBack()">Undo</button>
    </p>
    <section class="two">
      <div class="set">
        <div class="head">
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
        <p v-if="!checked" class="quiet small">
          Never checked. A leaf counts as it is marked, ± 0.005 mm; with a micrometer’s figure ± 0.002 mm.
        </p>
        <div class="scroll" tabindex="0" role="region" aria-label="Leaves">
          <table>
            <thead>
              <tr>
                <th>Marked</th>
                <th>Unit</th>
                <th>Micrometer, mm</th>
                <th>Shape</th>
                <th>State</th>
                <th><span class="sr">Remove</span></th>
              </tr>
            </thead>
            <tbody>
              <template v-for="(r, i) in rows" :key="i">
                <tr :class="{ gone: r.missing }">
                  <td>
                    <input
                      v-model="r.marked"
                      class="cell figure"
                      inputmode="decimal"
                      :aria-label="`Leaf ${i + 1}, marked`"
                    />
                  </td>
                  <td>
                    <button
                      class="mx-btn small"
                      type="button"
                      :aria-label="`${r.thou ? 'in' : 'mm'}, unit of leaf ${i + 1}`"
                      @click="r.thou = !r.thou"
                    >
                      {{ r.thou ? 'in' : 'mm' }}
                    </button>
                  </td>
                  <td>
                    <input
                      v-model="r.measured"
                      class="cell figure"
                      inputmode="decimal"
                      placeholder="–"
                      :aria-label="`Leaf ${i + 1}, micrometer, mm`"
                    />
                  </td>
                  <td>
                    <button
                      class="mx-btn small"
                      type="button"
                      :aria-label="`${r.angled ? 'angled' : 'straight'}, shape of leaf ${i + 1}`"
                      @click="r.angled = !r.angled"
                    >
                      {{ r.angled ? 'angled' : 'straight' }}
                    </button>
                  </td>
                  <td>
                    <button
                      class="mx-btn small"
                      type="button"
                      :aria-label="`${r.missing ? 'missing' : 'here'}, state of leaf ${i + 1}`"
                      @click="r.missing = !r.missing"
                    >
                      {{ r.missing ? 'missing' : 'here' }}
                    </button>
                  </td>
                  <td>
                    <button
                      class="mx-btn small"
                      type="button"
                      :aria-label="`Remove leaf ${i + 1}`"
                      @click="rows.splice(i, 1)"
                    >
                      ✕
                    </button>
                  </td>
                </tr>
                <tr v-for="m in faultsOf(i)" :key="m">
                  <td colspan="6" class="fault" role="alert">{{ m }}</td>
                </tr>
              </template>
            </tbody>
          </table>
        </div>
        <div class="do">
          <button class="mx-btn small" type="button" @click="g.add()">Another leaf</button>
          <button v-if="chosen" class="mx-btn small" type="button" @click="g.remove()">Remove the set</button>
        </div>
      </div>
      <div class="reach">
        <h2>Sizes you can make</h2>
        <div class="head">
          <VTextField v-model="lower" label="From" suffix="mm" inputmode="decimal" hide-details density="comfortable" />
          <VTextField v-model="upper" label="To" suffix="mm" inputmode="decimal" hide-details density="comfortable" />
        </div>
        <p v-if="reachTrouble" class="mx-warn" role="alert">{{ reachTrouble }}</p>
        <ReachStrip
          v-else-if="reach"
          :lower="plain(lower)"
          :upper="plain(upper)"
          :stacks="reach.stacks"
          :holes="reach.holes"
        />
        <p class="quiet small">
          Leaves rust if stored dry: wipe them with oil. Slide a leaf straight, and take it out before the crank is
          turned.
        </p>
      </div>
    </section>
  </main>
</template>

<style scoped>
.gauges {
  display: grid;
  gap: 16px;
}

.sets,
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.sets .on {
  border-color: var(--brass);
  background: var(--wash);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: 26px;
}

.set,
.reach {
  display: grid;
  gap: 12px;
  align-content: start;
}

.head {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 12px;
}

.scroll {
  position: relative;
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th {
  padding: 4px;
  color: var(--quiet);
  font-size: 15px;
  font-weight: 400;
  text-align: left;
}

td {
  padding: 2px 4px;
}

.cell {
  width: 100%;
  min-width: 78px;
  min-height: 44px;
  padding: 2px 10px;
  border: 2px solid var(--line);
  border-radius: 4px;
  background: var(--sunk);
  color: var(--ink);
  font-size: 20px;
  font-weight: 700;
}

.gone .cell {
  color: var(--quiet);
  text-decoration: line-through;
}

td .mx-btn {
  width: 100%;
  padding: 2px 10px;
  font-size: 16px;
}

.fault {
  padding: 2px 12px 8px;
  border-left: 6px solid var(--tight);
  font-size: 16px;
}

.said {
  display: flex;
  gap: 16px;
  align-items: center;
  padding: 8px 16px;
  border-left: 8px solid var(--in);
  background: var(--panel);
}

.small {
  font-size: 16px;
}

.sr {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
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
