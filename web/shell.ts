import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { build, type Plugin, type Rolldown } from 'vite'

const at = (path: string) => new URL(path, import.meta.url).pathname
const hash = (of: string | Buffer) => createHash('sha256').update(of).digest('hex').slice(0, 16)

/** One file that the shell keeps; what has its hash in its name needs no other. */
interface Kept {
  url: string
  revision: string | null
}

/** The script that keeps a version's pages on a tablet, with the list of its files, in one piece. */
async function shellOf(files: Kept[]): Promise<string> {
  const built = (await build({
    configFile: false,
    logLevel: 'error',
    publicDir: false,
    define: { SHELL_FILES: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' },
    build: {
      write: false,
      target: 'es2022',
      minify: true,
      lib: { entry: at('./src/shell/shell.worker.ts'), formats: ['iife'], name: 'shell', fileName: () => 'shell.js' },
    },
  })) as Rolldown.RolldownOutput[]
  return built[0]!.output[0].code
}

/**
 * Lays /shell.js among the built files: what a tablet keeps so that pages open when the program cannot be reached. It changes with every file
 * of the program, which is how a browser knows that there is a newer version.
 */
export function offlineShell(): Plugin {
  return {
    name: 'offline-shell',
    apply: 'build',
    generateBundle: {
      order: 'post',
      async handler(_, bundle) {
        const hashed = Object.keys(bundle)
          .filter((name) => name.startsWith('assets/'))
          .sort()
        const files: Kept[] = hashed.map((name) => ({ url: `/${name}`, revision: null }))
        for (const name of readdirSync(at('./public')).filter((f) => !f.startsWith('.')))
          files.push({ url: `/${name}`, revision: hash(readFileSync(at(`./public/${name}`))) })
        files.push({ url: '/index.html', revision: hash(readFileSync(at('./index.html')) + hashed.join('\n')) })
        this.emitFile({ type: 'asset', fileName: 'shell.js', source: await shellOf(files) })
      },
    },
  }
}
