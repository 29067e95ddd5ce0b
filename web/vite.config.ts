import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'

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

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true, styles: true }), gzipTwins()],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: { target: 'es2022', emptyOutDir: true, modulePreload: { polyfill: false }, assetsInlineLimit: 0 },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8080', changeOrigin: false } } },
})
