import { config } from '@vue/test-utils'
import { vuetify } from './app/theme'

// Every component of a test stands on the same base as in the program.
config.global.plugins = [vuetify]
