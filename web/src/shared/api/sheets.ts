import { answered, api, type Schemas } from './client'

/** Sends a sheet as it is written, and gives what is stored. */
export async function putSheet(id: string, text: string, replaces?: string): Promise<Schemas['EngineWhole']> {
  return answered(
    api.PUT('/api/v1/engines/{id}', {
      params: { path: { id }, query: replaces ? { replaces } : {} },
      body: text as never,
      bodySerializer: (b) => b as never,
      headers: { 'Content-Type': 'application/json' },
    }),
  )
}

/** Hands a text to the browser as a file. */
export function saveFile(name: string, text: string, type: string) {
  const url = URL.createObjectURL(new Blob([text], { type }))
  const link = Object.assign(document.createElement('a'), { href: url, download: name })
  link.click()
  URL.revokeObjectURL(url)
}

/** A file's name from an engine's. */
export function sheetFile(name: string): string {
  return `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'engine'}.engine.json`
}
