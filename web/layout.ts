import { readdirSync, readFileSync } from 'node:fs'
import postcss from 'postcss'
import type { Plugin } from 'vite'

/** Every word that stands in the pages' files: a class that is none of them is not used. */
export function sourceWords(files = /\.(vue|ts)$/): Set<string> {
  const source = new URL('./src/', import.meta.url).pathname
  const pages = readdirSync(source, { recursive: true, encoding: 'utf8' }).filter((f) => files.test(f))
  return new Set(pages.flatMap((p) => readFileSync(source + p, 'utf8').match(/[\w-]+/g) ?? []))
}

/**
 * The base's layout and spacing classes, those that are used, of its 13,000 lines. They are as weak as a class is, so that what a
 * part says of itself goes before them.
 */
export function usedLayout(): Plugin {
  return {
    name: 'used-layout',
    enforce: 'pre',
    transform(code, id) {
      if (!id.includes('vuetify/lib/styles/utilities.css')) return null
      const used = sourceWords(/\.vue$/)
      const out = postcss.root()
      postcss.parse(code).walkRules((rule) => {
        const name = /^\.([\w-]+)$/.exec(rule.selector)?.[1]
        const always = rule.parent?.type === 'atrule' && (rule.parent as postcss.AtRule).name === 'layer'
        if (!name || !always || !used.has(name)) return
        rule.walkDecls((d) => void (d.important = false))
        out.append(rule.clone())
      })
      return { code: out.toString(), map: null }
    },
  }
}
