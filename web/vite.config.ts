import { createHash } from 'node:crypto'
import { readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import postcss from 'postcss'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'

import { sourceWords, usedLayout } from './layout.ts'
import { offlineShell } from './shell.ts'

/** Lays compressed twins beside every written text file; the server sends the smallest that the browser takes. */
function compressedTwins(): Plugin {
  return {
    name: 'compressed-twins',
    apply: 'build',
    async writeBundle({ dir }) {
      for (const name of await readdir(dir!, { recursive: true })) {
        if (!/\.(js|css|svg|json|webmanifest|wasm)$/.test(name)) continue
        const path = join(dir!, name)
        const text = await readFile(path)
        await writeFile(`${path}.gz`, gzipSync(text, { level: 9 }))
        const large = name.endsWith('.wasm')
        const params = {
          [constants.BROTLI_PARAM_SIZE_HINT]: text.length,
          [constants.BROTLI_PARAM_QUALITY]: large ? 9 : 11,
        }
        await writeFile(`${path}.br`, brotliCompressSync(text, { params }))
        if (large) await rm(path) // the server unpacks a twin for the few who take neither
      }
    },
  }
}

/**
 * The bench as WebAssembly (make builds it), under its own hash: what it is fetched by, and what it must be. Where pages are served without
 * a build, and in their tests, there is none.
 */
function benchModule(): Plugin {
  const name = 'virtual:bench-module'
  let built = false
  return {
    name: 'bench-module',
    configResolved: (config) => void (built = config.command === 'build'),
    resolveId: (id) => (id === name ? `\0${name}` : null),
    async load(id) {
      if (id !== `\0${name}`) return null
      if (!built) return `export const benchModule = { url: '', integrity: '' }`
      const source = await readFile(new URL('./gen/bench.wasm', import.meta.url))
      const hash = (of: 'base64' | 'hex') => createHash('sha256').update(source).digest(of)
      const fileName = `assets/bench-${hash('hex').slice(0, 12)}.wasm`
      this.emitFile({ type: 'asset', fileName, source })
      return `export const benchModule = { url: '/${fileName}', integrity: 'sha256-${hash('base64')}' }`
    },
  }
}

/** Parts of the base that others of its parts could draw, and that nothing here has them draw. */
const neverDrawn = /\.v-(progress-linear|chip|avatar|badge|divider)(?![a-z])/

/** The base's sheet without variants and sizes that stand in no file here, what is never drawn, and what is for letters that run from the right. */
function usedStyles(css: string): string {
  const used = sourceWords().add('default')
  const root = postcss.parse(css)
  root.walkRules((rule) => {
    const left = rule.selectors.filter((s) => {
      if (s.includes('.v-locale--is-rtl') || neverDrawn.test(s)) return false
      return [...s.matchAll(/\.v-[\w-]+--(?:variant|size)-([\w-]+)/g)].every(([, what]) => used.has(what!))
    })
    if (left.length) rule.selectors = left
    else rule.remove()
  })
  // Whatever runs these pages reads the smaller of two forms of letters.
  root.walkDecls('src', (d) => void (d.value = d.value.replace(/,\s*url\([^)]*\.woff\)\s*format\([^)]*\)/g, '')))
  return root.toString()
}

/** The one style sheet begins with the order of its layers, wherever the builder has put the sheet that says it. */
function oneSheet(): Plugin {
  return {
    name: 'one-sheet',
    apply: 'build',
    generateBundle: {
      order: 'post', // the sheet is put together last
      async handler(_, bundle) {
        const layers = await readFile(at('app/layers.css'), 'utf8')
        for (const file of Object.values(bundle))
          if (file.type === 'asset' && file.fileName.endsWith('.css'))
            file.source = layers + usedStyles(String(file.source))
          else if (file.fileName.endsWith('.woff')) delete bundle[file.fileName]
      },
    },
  }
}

/** A chunk or file as the builder has it. */
type Built = { fileName: string; imports?: string[]; isEntry?: boolean; facadeModuleId?: string | null }

/**
 * Tells the server which pieces each page needs (pages.json, by the router's addresses), so that they are asked for together with the first
 * one and not after it.
 */
function askedAtOnce(): Plugin {
  return {
    name: 'asked-at-once',
    apply: 'build',
    async generateBundle(_, bundle) {
      const built = Object.values(bundle) as Built[]
      const all = (names: string[]): string[] =>
        names.flatMap((n) => [n, ...all((bundle[n] as Built | undefined)?.imports ?? [])])
      const first = built.find((c) => c.isEntry)!
      const shared = new Set([first.fileName, ...all(first.imports ?? [])])
      const router = await readFile(at('app/router.ts'), 'utf8')
      const pages = [...router.matchAll(/path: '([^']+)',[^}]*?import\('@\/([^']+)'\)/g)].map(([, path, module]) => {
        const page = built.find((c) => c.facadeModuleId === at(module!))!
        return { path, pieces: [...new Set(all([page.fileName]))].filter((n) => !shared.has(n)) }
      })
      this.emitFile({ type: 'asset', fileName: 'pages.json', source: JSON.stringify(pages) })
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
  {
    what: 'the choice of one among buttons, of which a button only asks for its key',
    source: '../VBtnToggle/VBtnToggle.js',
    importer: 'vuetify/lib/components/VBtn/VBtn.js',
    code: `export const VBtnToggleSymbol = Symbol.for('vuetify:v-btn-toggle')`,
  },
  {
    what: 'the time after which an alert goes by itself, for which each measures where it stands as it comes up',
    source: './autoDismiss.js',
    importer: 'vuetify/lib/components/VAlert/',
    code: `import { ref } from 'vue'
    export const useAutoDismiss = () => ({ rootEl: ref(), progress: ref(100), events: {} })`,
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

/** What chunking asks of a module. */
interface Graph {
  getModuleInfo(id: string): { importedIds: readonly string[]; dynamicallyImportedIds: readonly string[] } | null
}

/** Everything that is fetched with some modules. */
function fetchedWith(graph: Graph, ...roots: string[]): Set<string> {
  const all = new Set(roots)
  for (const id of all) for (const next of graph.getModuleInfo(id)?.importedIds ?? []) all.add(next)
  return all
}

const at = (path: string) => new URL(`./src/${path}`, import.meta.url).pathname

/**
 * In few pieces, because on a slow line each costs a way there and back: what the first view needs is one, what the bench shares with other
 * pages another, what those share among themselves a third; a page is the rest of what it needs.
 */
function pieces() {
  let parts: { first: Set<string>; bench: Set<string>; later: Set<string>[] } | null = null
  const name = (id: string, graph: Graph): string | null => {
    if (!parts) {
      const first = fetchedWith(graph, at('app/main.ts'))
      const roots = new Set<string>()
      const all = new Set(first)
      for (const m of all) {
        const info = graph.getModuleInfo(m)
        for (const r of info?.dynamicallyImportedIds ?? []) roots.add(r)
        for (const next of [...(info?.importedIds ?? []), ...(info?.dynamicallyImportedIds ?? [])]) all.add(next)
      }
      const later = [...roots].map((r) => fetchedWith(graph, r))
      parts = { first, bench: fetchedWith(graph, at('features/bench/BenchPage.vue')), later }
    }
    if (parts.first.has(id) || id.includes('rolldown/runtime')) return 'first'
    if (id.includes('/features/bench/') && !parts.bench.has(id)) return 'later' // of the bench
    if (parts.later.filter((p) => p.has(id)).length < 2) return null
    return parts.bench.has(id) ? 'kit' : 'more'
  }
  return { debugName: 'pieces', name }
}

export default defineConfig({
  plugins: [
    vue(),
    withoutUnused(),
    usedLayout(),
    vuetify({ autoImport: true, styles: true }),
    oneSheet(),
    benchModule(),
    askedAtOnce(),
    offlineShell(),
    compressedTwins(),
  ],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: {
    target: 'es2022',
    emptyOutDir: true,
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    cssCodeSplit: false,
    rolldownOptions: {
      checks: { pluginTimings: false },
      output: { codeSplitting: { includeDependenciesRecursively: false, groups: [pieces()] } },
    },
  },
  // No component here, nor of the base, is written with options.
  define: { __VUE_OPTIONS_API__: 'false', __VUE_PROD_DEVTOOLS__: 'false' },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8080', changeOrigin: false } } },
})
