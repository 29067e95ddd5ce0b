<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { setTheme, theme } from '@/app/theme'
import { later } from './later'

defineProps<{
  title: string
  sub?: string
  back?: string
  backTo?: string
  /** Stays in view while the page scrolls. */ stays?: boolean
  /** Brings its own way to the night theme where it is narrow. */ lean?: boolean
}>()

const WhoIs = later(() => import('./WhoIs.vue'))

const screens = [
  { name: 'On the go', to: '/' },
  { name: 'Engines', to: '/engines' },
  { name: 'Feelers', to: '/gauges' },
  { name: 'Calculators', to: '/sums' },
  { name: 'Vehicles', to: '/vehicles' },
  { name: 'Practice', to: '/practice' },
  { name: 'Workshop', to: '/shop' },
]
</script>

<template>
  <header class="top no-print align-center ga-4 py-2 px-5 line-below" :class="{ stays, lean, names: !back }">
    <VBtn v-if="back" class="back" size="small" :to="backTo ?? '/'" :aria-label="back"
      ><span aria-hidden="true">‹</span> <span class="where-to">{{ back }}</span></VBtn
    >
    <svg v-else class="mark f-none s-brass" viewBox="0 0 32 32" aria-hidden="true">
      <path d="M7 25V9l9 10 9-10v16" />
      <path class="base s-in" d="M4 25.5h24" />
    </svg>
    <h1 class="fs-20 lh-tight" tabindex="-1">{{ title }}</h1>
    <nav v-if="!back" class="d-flex flex-wrap ga-1" aria-label="Screens">
      <RouterLink
        v-for="s in screens"
        :key="s.to"
        class="d-inline-flex align-center tall-44 py-1 px-3 quiet text-decoration-none"
        :to="s.to"
        >{{ s.name }}</RouterLink
      >
    </nav>
    <span v-if="sub" class="sub quiet text-no-wrap overflow-hidden">{{ sub }}</span>
    <span class="fills" />
    <slot />
    <WhoIs />
    <VBtn class="theme quiet" size="small" @click="setTheme(theme === 'night' ? 'day' : 'night')">
      {{ theme === 'night' ? 'Day' : 'Night' }}
    </VBtn>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  min-height: 60px;
}

h1:focus {
  outline: none;
}

h1 {
  text-wrap: balance;
}

/* Beside the screens' names its own stands in one line. */
.names h1 {
  white-space: nowrap;
}

.top :deep(.v-btn) {
  white-space: nowrap;
}

.top :deep(.v-selection-control) {
  min-height: 44px;
}

/* It takes what the name leaves, so that the name is never broken for it; where that is too little it is not begun. */
.sub {
  display: flex;
  flex: 1000 1 0;
  flex-wrap: wrap;
  max-width: max-content;
  height: 1.5em;
}

.sub::before {
  width: 1px;
  height: 1.5em;
  content: '';
}

nav a {
  border-bottom: 3px solid transparent;
}

nav a:hover {
  color: var(--ink);
}

nav a.router-link-exact-active,
nav a.router-link-active:not([href='/']) {
  border-color: var(--brass);
  color: var(--ink);
}

.stays {
  position: sticky;
  top: 0;
  z-index: 5;
  background: var(--ground);
}

.back {
  order: -4;
}

.top:not(.names) h1 {
  order: -3;
}

.mark {
  width: 34px;
  height: 34px;
  stroke-width: 3.4;
}

.mark .base {
  stroke-width: 2.4;
}

@media (height <= 480px) {
  .top {
    min-height: 50px;
    padding-block: 3px;
  }
}

@media (width <= 640px) {
  .top :deep(.v-btn--size-small) {
    padding: 4px 10px;
    font-size: 16px;
  }
}

.lean .theme {
  display: none;
}

/* Where it is narrow the name is told whole, on two lines if need be, and what does not stand beside it stands below. */
@media (width <= 1100px) {
  .top {
    flex-wrap: wrap;
    gap: 8px 12px;
    padding: 8px 12px;
  }

  .top:not(.names) h1 {
    flex: 1 1 0;
    min-width: 110px;
  }

  .top :deep(kbd),
  .top:not(.names) > .fills,
  .sub {
    display: none;
  }
}

@media (width <= 480px) {
  .where-to {
    display: none;
  }
}

/* A phone lying down: one line. */
@media (width <= 1000px) and (height <= 480px) {
  .lean {
    flex-wrap: nowrap;
    padding-block: 3px;
  }

  .top.lean h1 {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
</style>
