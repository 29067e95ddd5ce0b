import { createApp } from 'vue'
import './layers.css'
import 'vuetify/styles/core'
import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-700.css'
import '@fontsource/atkinson-hyperlegible-mono/latin-500.css'
import '@fontsource/atkinson-hyperlegible-mono/latin-700.css'
import './look.css'
import 'vuetify/styles/utilities'
import './classes.css'
import App from './App.vue'
import { router } from './router'
import { vuetify } from './theme'

// The letters come while the page is put together: the line is free then, and they are there when words are painted.
for (const [weight, family] of [
  [400, 'Next'],
  [700, 'Next'],
  [500, 'Mono'],
  [700, 'Mono'],
])
  void document.fonts.load(`${weight} 1em "Atkinson Hyperlegible ${family}"`).catch(() => [])

createApp(App).use(vuetify).use(router).mount('#app')
