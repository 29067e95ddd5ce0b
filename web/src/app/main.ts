import { createApp } from 'vue'
import { createVuetify } from 'vuetify'
import 'vuetify/styles/core'
import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-700.css'
import '@fontsource/atkinson-hyperlegible-mono/latin-500.css'
import '@fontsource/atkinson-hyperlegible-mono/latin-700.css'
import './look.css'
import './theme'
import App from './App.vue'
import { router } from './router'

// The theme's colours are in look.css: a style written by a script would need an exception in the content policy.
const vuetify = createVuetify({
  theme: false,
  defaults: { VBtn: { ripple: false }, VTextField: { variant: 'outlined' } },
})

createApp(App).use(vuetify).use(router).mount('#app')
