<script setup lang="ts">
import { computed, ref } from 'vue'
import { useEventListener } from '@vueuse/core'
import { answered, api, type Schemas } from '@/shared/api/client'
import { people } from '@/shared/session'
import { roleWords } from './roleWords'
import SetUpPart from './SetUpPart.vue'

/** Who is there: a name and a PIN, or a tag whose number a reader types. */
const kept = 'metronix.last-person'
const last = localStorage.getItem(kept) ?? ''
const who = ref<Schemas['PersonName'] | null>(null)
const typed = ref('')
const says = ref('')
const busy = ref(false)
/** Whoever was here last stands first. */
const names = computed(() =>
  [...(people.session.value?.people ?? [])].sort(
    (a, b) => Number(b.id === last) - Number(a.id === last) || a.name.localeCompare(b.name),
  ),
)
const most = 12

function choose(p: Schemas['PersonName'] | null) {
  who.value = p
  typed.value = ''
  says.value = ''
}

async function go() {
  if (busy.value || !typed.value) return
  busy.value = true
  says.value = ''
  try {
    const body = who.value ? { person_id: who.value.id, pin: typed.value } : { tag: typed.value }
    people.take(await answered(api.POST('/api/v1/session', { body })))
    localStorage.setItem(kept, people.session.value?.person?.id ?? '')
  } catch (e) {
    says.value = (e as Error).message
  }
  typed.value = ''
  busy.value = false
}

function digit(d: string) {
  says.value = ''
  if (typed.value.length < (who.value ? most : 64)) typed.value += d
}

function key(e: KeyboardEvent) {
  if (people.session.value?.set_up || e.ctrlKey || e.altKey || e.metaKey) return
  if (/^[0-9]$/.test(e.key) || (!who.value && /^[A-Za-z]$/.test(e.key))) digit(e.key)
  else if (e.key === 'Backspace') typed.value = typed.value.slice(0, -1)
  else if (e.key === 'Escape') choose(null)
  else if (e.key === 'Enter' && typed.value) void go()
  else return
  e.preventDefault()
}
useEventListener(window, 'keydown', key)
const pad = ['1', '2', '3', '4', '5', '6', '7', '8', '9']
</script>

<template>
  <main class="sign-in d-grid ga-6 pa-5">
    <SetUpPart v-if="people.session.value?.set_up" />
    <template v-else-if="!who">
      <h1 class="fs-34">Who is there?</h1>
      <ul class="names d-grid ga-3 ma-0 pa-0 list-none">
        <li v-for="p in names" :key="p.id">
          <VBtn
            class="name fills tall-64 fs-24"
            :variant="p.id === last ? 'flat' : 'outlined'"
            block
            @click="choose(p)"
          >
            {{ p.name }}<span class="role fs-15">{{ roleWords[p.role] }}</span>
          </VBtn>
        </li>
      </ul>
      <p class="quiet">Or hold a tag to the reader.</p>
    </template>
    <section v-else class="pin d-grid ga-4" :aria-label="`PIN of ${who.name}`">
      <h1 class="fs-34">{{ who.name }}</h1>
      <p class="dots fs-34" role="status" :aria-label="`${typed.length} digits`">
        <span
          v-for="n in Math.max(4, typed.length)"
          :key="n"
          :class="{ there: n <= typed.length }"
          aria-hidden="true"
        />
      </p>
      <div class="pad d-grid ga-2">
        <VBtn v-for="d in pad" :key="d" class="tall-64 fs-30" :aria-label="d" @click="digit(d)">{{ d }}</VBtn>
        <VBtn class="tall-64 fs-20" aria-label="Take the last digit back" @click="typed = typed.slice(0, -1)"
          >back</VBtn
        >
        <VBtn class="tall-64 fs-30" aria-label="0" @click="digit('0')">0</VBtn>
        <VBtn class="go tall-64 fs-18 px-1" variant="flat" :disabled="busy || typed.length < 4" @click="go"
          >Sign in</VBtn
        >
      </div>
      <VBtn @click="choose(null)">Somebody else</VBtn>
    </section>
    <VAlert v-if="says" role="alert">{{ says }}</VAlert>
  </main>
</template>

<style scoped>
.sign-in {
  align-content: center;
  justify-items: center;
  min-height: 100dvh;
}

.names {
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 260px), 1fr));
  width: min(100%, 900px);
}

.name {
  width: 100%;
}

.go {
  white-space: nowrap;
}

.name :deep(.v-btn__content) {
  display: grid;
  gap: 2px;
  white-space: normal;
}

.pin {
  justify-items: stretch;
  width: min(100%, 420px);
}

.pin h1 {
  text-align: center;
}

.pad {
  grid-template-columns: repeat(3, 1fr);
}

.dots {
  display: flex;
  justify-content: center;
  gap: 14px;
}

.dots span {
  width: 18px;
  height: 18px;
  border: 3px solid var(--quiet);
  border-radius: 50%;
}

.dots .there {
  border-color: var(--brass);
  background: var(--brass);
}
</style>
