<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { setTheme, theme } from '@/app/theme'

defineProps<{
  title: string
  sub?: string
  back?: string
  backTo?: string
  /** Stays in view while the page scrolls. */ stays?: boolean
  /** Brings its own way to the night theme where it is narrow. */ lean?: boolean
}>()

const screens = [
  { name: 'Board', to: '/' },
  { name: 'Engines', to: '/engines' },
  { name: 'Gauges', to: '/gauges' },
  { name: 'Calculators', to: '/sums' },
  { name: 'Vehicles', to: '/vehicles' },
  { name: 'Workshop', to: '/shop' },
]
</script>

<template>
  <header class="top no-print align-center ga-4 py-2 px-5 line-below" :class="{ stays, lean }">
    <VBtn v-if="back" class="back" size="small" :to="backTo ?? '/'"><span aria-hidden="true">‹</span> {{ back }}</VBtn>
    <svg v-else class="mark f-none s-brass" viewBox="0 0 32 32" aria-hidden="true">
      <path d="M7 25V9l9 10 9-10v16" />
      <path class="base s-in" d="M4 25.5h24" />
    </svg>
    <h1 class="overflow-hidden fs-20 lh-tight text-no-wrap" tabindex="-1">{{ title }}</h1>
    <nav v-if="!back" class="d-flex flex-wrap ga-1" aria-label="Screens">
      <RouterLink v-for="s in screens" :key="s.to" :to="s.to">{{ s.name }}</RouterLink>
    </nav>
    <span v-if="sub" class="sub quiet text-no-wrap overflow-hidden">{{ sub }}</span>
    <span class="fills" />
    <slot />
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
  min-width: 70px;
  text-overflow: ellipsis;
}

.top :deep(.v-btn) {
  white-space: nowrap;
}

.top :deep(.v-selection-control) {
  min-height: 44px;
}

.sub {
  flex-shrink: 1000;
  text-overflow: ellipsis;
}

nav a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 4px 12px;
  border-bottom: 3px solid transparent;
  color: var(--quiet);
  text-decoration: none;
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
  order: -2;
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

@media (width <= 1100px) {
  .top:not(:has(nav)) {
    overflow-x: auto;
    scrollbar-width: none;
  }

  .top:not(:has(nav)) > :not(h1, .fills) {
    flex: none;
  }

  .lean .theme {
    display: none;
  }

  .top:has(nav) {
    flex-wrap: wrap;
  }

  .top {
    gap: 8px 12px;
    padding: 8px 12px;
  }

  .sub {
    display: none;
  }
}
</style>
