import { defineConfig, mergeConfig } from 'vitest/config'
import base from './vite.config'

const specs = 'src/**/*.spec.ts'
/** These keep what they learned in their modules, or put others in place of modules: each runs in a world of its own. */
const alone = ['src/**/use*.spec.ts', 'src/**/{judge,live,mine,address,guard}.spec.ts']

export default mergeConfig(
  base,
  defineConfig({
    test: {
      environment: 'happy-dom',
      environmentOptions: { happyDOM: { url: 'http://localhost/' } },
      testTimeout: 120_000, // three lanes share two cores
      server: { deps: { inline: ['vuetify'] } },
      projects: [
        { extends: true, test: { name: 'alone', include: alone } },
        { extends: true, test: { name: 'together', include: [specs], exclude: alone, isolate: false } },
      ],
    },
  }),
)
