import { defineConfig, mergeConfig } from 'vitest/config'
import base from './vite.config'

export default mergeConfig(
  base,
  defineConfig({
    test: {
      environment: 'happy-dom',
      environmentOptions: { happyDOM: { url: 'http://localhost/' } },
      include: ['src/**/*.spec.ts'],
      testTimeout: 30_000, // three lanes share two cores
      server: { deps: { inline: ['vuetify'] } },
    },
  }),
)
