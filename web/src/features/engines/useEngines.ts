import { computed, ref } from 'vue'
import { answered, api, newID, Refused } from '@/shared/api/client'
import { queryClient, readOnce, reads, useRead } from '@/shared/api/reads'
import { putSheet, saveFile, sheetFile } from '@/shared/api/sheets'

type Fault = { location: string; message: string }

/** The library: what is stored, and what can be done with a sheet. */
export function useEngines() {
  const { data: list, trouble: unread, again } = useRead(reads.engines())
  const search = ref('')
  const refused = ref('')
  const trouble = computed(() => refused.value || unread.value)
  const faults = ref<Fault[]>([])
  const said = ref('')
  const removed = ref<{ id: string; text: string; name: string } | null>(null)

  function failed(e: unknown) {
    refused.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }

  async function doing(work: () => Promise<string>) {
    refused.value = ''
    faults.value = []
    said.value = ''
    removed.value = null
    try {
      said.value = await work()
      await queryClient.invalidateQueries({ queryKey: reads.engines().queryKey })
    } catch (e) {
      failed(e)
    }
  }

  const sheetOf = async (id: string) => (await readOnce(reads.engine(id))).sheet as { name: string }

  const importFile = (file: File) =>
    doing(async () => {
      const stored = await putSheet(newID(), await file.text())
      return `${(stored.sheet as { name: string }).name} is in the library.`
    })

  const duplicate = (id: string) =>
    doing(async () => {
      const sheet = await sheetOf(id)
      const name = `${sheet.name.slice(0, 110)} (copy)`
      await putSheet(newID(), JSON.stringify({ ...sheet, name }))
      return `${name} is in the library.`
    })

  const exportSheet = (id: string) =>
    doing(async () => {
      const sheet = await sheetOf(id)
      saveFile(sheetFile(sheet.name), JSON.stringify(sheet, null, 2) + '\n', 'application/json')
      return `${sheetFile(sheet.name)} was downloaded.`
    })

  async function remove(id: string) {
    let taken: { id: string; name: string; text: string } | null = null
    await doing(async () => {
      const sheet = await sheetOf(id)
      await answered(api.DELETE('/api/v1/engines/{id}', { params: { path: { id } } }))
      taken = { id, name: sheet.name, text: JSON.stringify(sheet) }
      return `${sheet.name} was removed.`
    })
    removed.value = taken
  }

  async function putBack() {
    const back = removed.value
    if (!back) return
    await doing(async () => {
      await putSheet(back.id, back.text)
      return `${back.name} is restored.`
    })
  }

  const shown = computed(() => {
    const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
    return (list.value ?? []).filter((e) => {
      const text =
        `${e.name} ${e.layout} ${e.cylinders} cylinders ${e.valves} valves ${e.firing_order.join('-')}`.toLowerCase()
      return words.every((w) => text.includes(w))
    })
  })

  return {
    list,
    shown,
    search,
    trouble,
    faults,
    said,
    removed,
    again,
    importFile,
    duplicate,
    exportSheet,
    remove,
    putBack,
  }
}
