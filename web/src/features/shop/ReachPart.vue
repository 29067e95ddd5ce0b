<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { groups } from '@/shared/fingerprint'

/** How tablets come to the program: a code to scan, and what they have to show then. */
const reach = ref<Schemas['Reach'] | null>(null)
onMounted(async () => {
  reach.value = await answered(api.GET('/api/v1/reach')).catch(() => null)
})
const page = computed(() => reach.value?.page.split('#')[0] ?? '')
</script>

<template>
  <section v-if="reach" class="d-grid ga-3">
    <h2 class="fs-24">Tablets</h2>
    <p v-if="!reach.tls" class="quiet">
      No other machine is let in under protection:
      <code class="in-figures">metronix serve --listen 0.0.0.0:8080</code> opens the program to the workshop’s network,
      encrypted and with people signing in.
    </p>
    <div v-else class="reach d-grid ga-5">
      <svg
        class="code"
        :viewBox="`0 0 ${reach.code_size} ${reach.code_size}`"
        role="img"
        :aria-label="`Code of ${page}`"
      >
        <path :d="reach.code" />
      </svg>
      <div class="d-grid ga-3">
        <p class="fs-20">
          Point the tablet’s camera at the code, or open <b class="in-figures">{{ page }}</b> there. It leads on in
          three steps.
        </p>
        <p class="quiet">The certificate that the tablet shows has to have this SHA-256 fingerprint:</p>
        <p class="prints in-figures fs-16">
          <span v-for="(g, i) in groups(reach.fingerprint)" :key="i">{{ g }}</span>
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.reach {
  grid-template-columns: auto 1fr;
  align-items: start;
}

/* Dark on light in both themes: cameras read no other. */
.code {
  width: 220px;
  border-radius: 8px;
  background: #fff;
  fill: #000;
}

.prints {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(52px, 1fr));
  gap: 2px 10px;
}

@media (width <= 640px) {
  .reach {
    grid-template-columns: 1fr;
  }
}
</style>
