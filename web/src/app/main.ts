import { createApp } from 'vue'
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

createApp(App).use(vuetify).use(router).mount('#app')
