import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'
import { usedLayout } from './layout.ts'

// gzipTwins lays a gzipped twin beside every written text file; the server sends it where the browser takes it.
function gzipTwins(): Plugin {
  return {
    name: 'gzip-twins',
    apply: 'build',
    async writeBundle({ dir }) {
      for (const name of await readdir(dir!, { recursive: true })) {
        if (!/\.(js|css|svg|json)$/.test(name)) continue
        const path = join(dir!, name)
        await writeFile(`${path}.gz`, gzipSync(await readFile(path), { level: 9 }))
      }
    },
  }
}

/** What the base brings with every page and nothing here uses, with what stands in its place: 8 kB of the board's 130. */
const unused = [
  {
    what: 'the adapter of its date pickers',
    source: './adapters/vuetify.js',
    importer: 'vuetify/lib/composables/date/',
    code: 'export class VuetifyDateAdapter {}',
  },
  {
    what: 'the bar that a field shows while it loads',
    source: '../components/VProgressLinear/index.js',
    importer: 'vuetify/lib/composables/loader.js',
    code: 'export const VProgressLinear = { render: () => null }',
  },
  {
    what: 'the bar of an alert that goes by itself',
    source: '../VProgressLinear/index.js',
    importer: 'vuetify/lib/components/VAlert/',
    code: 'export const VProgressLinear = { render: () => null }',
  },
]

function withoutUnused(): Plugin {
  return {
    name: 'without-unused',
    enforce: 'pre',
    resolveId(source, importer) {
      const at = unused.findIndex((u) => u.source === source && importer?.includes(u.importer))
      return at < 0 ? null : `\0unused-${at}`
    },
    load: (id) => (id.startsWith('\0unused-') ? unused[Number(id.slice(8))]!.code : null),
  }
}

export default defineConfig({
  plugins: [vue(), withoutUnused(), usedLayout(), vuetify({ autoImport: true, styles: true }), gzipTwins()],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: { target: 'es2022', emptyOutDir: true, modulePreload: { polyfill: false }, assetsInlineLimit: 0 },
  // No component here, nor of the base, is written with options.
  define: { __VUE_OPTIONS_API__: 'false' },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8080', changeOrigin: false } } },
})
