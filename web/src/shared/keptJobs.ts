import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { JobView, Schemas } from './api/client'

/** A job as the program had it, from which this tablet can go on when the program cannot be reached. */
export interface KeptJob {
  id: string
  /** When that was, by the program's clock. */
  at: string
  /** Everything about it but its state, which follows from the list. */
  view: JobView
  opening: Schemas['Opening']
}

/*
 * A database of its own, beside that of what waits: an older page that is still open would keep a newer one from changing that.
 */
interface Kept extends DBSchema {
  jobs: { key: string; value: KeptJob }
}
let opening: Promise<IDBPDatabase<Kept>> | undefined
const database = () =>
  (opening ??= openDB<Kept>('metronix-jobs', 1, {
    upgrade: (db) => void db.createObjectStore('jobs', { keyPath: 'id' }),
  }))

/** How many jobs are kept; of more the longest untouched go. */
const most = 12

/** The jobs that were last open on this tablet. Where the browser keeps nothing there are none. */
export const keptJobs = {
  /** The newest first. */
  async all(): Promise<KeptJob[]> {
    const list = await database()
      .then((db) => db.getAll('jobs'))
      .catch(() => [])
    return list.sort((a, b) => b.at.localeCompare(a.at))
  },
  get: (id: string): Promise<KeptJob | undefined> =>
    database()
      .then((db) => db.get('jobs', id))
      .catch(() => undefined),
  async keep(job: KeptJob) {
    try {
      const db = await database()
      await db.put('jobs', job)
      for (const { id } of (await keptJobs.all()).slice(most)) await db.delete('jobs', id)
    } catch {
      // it is opened from the program only
    }
  },
  /** Whoever is signed out leaves nothing here to be read; what waits to be sent is kept elsewhere. */
  clear: () =>
    database()
      .then((db) => db.clear('jobs'))
      .catch(() => {}),
}
