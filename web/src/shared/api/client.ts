import createClient from 'openapi-fetch'
import type { components, paths } from './schema.gen'

export type Schemas = components['schemas']
export type JobView = Schemas['JobView']
export type JobState = Schemas['JobState']
export type JobChanges = Schemas['JobChanges']
/** What a happening is answered with: the whole state, or what changed. */
export type StateAnswer = JobState | JobChanges
export type JobShort = Schemas['JobShort']
export type EngineView = Schemas['EngineView']
export type ValveState = Schemas['ValveState']
export type ValveView = Schemas['ValveView']
export type PlanView = Schemas['PlanView']
export type Sighting = Schemas['Sighting']
export type Judgement = Schemas['Judgement']
export type Happening = Schemas['Happening']
/** One act of any kind, before it has its id: what the union of happenings leaves when its header is taken off. */
export type Act = Happening extends infer H ? (H extends Happening ? Omit<H, 'id' | 'done_at'> : never) : never
/** A happening of one kind. */
export type HappeningOf<K extends Happening['kind']> = Extract<Happening, { kind: K }>
export type StopView = Schemas['StopView']
export type Rung = Schemas['Rung']
export type Ways = Schemas['Ways']
export type Look = Schemas['Look']
export type Found = Schemas['Found']
export type Verdict = Judgement['verdict']

/** What the program answers when it refuses, RFC 9457. */
export interface Problem {
  type?: string
  status?: number
  title?: string
  detail?: string
  errors?: { location?: string; message?: string }[] | null
}

export const api = createClient<paths>({ baseUrl: location.origin, fetch: (request) => fetch(request) })

/** For so long after a touch what is sent counts as a person's doing, and not as the page's own asking, ms. */
const touchLasts = 60_000
let touched = 0
for (const kind of ['pointerdown', 'keydown'] as const) addEventListener(kind, () => (touched = Date.now()), true)

let unknown = () => {}
/** Has something done where the program does not know who is here. */
export const onUnknown = (f: () => void) => (unknown = f)

api.use({
  onRequest({ request }) {
    request.headers.set('touched', Date.now() - touched < touchLasts ? 'yes' : 'no')
  },
  onResponse({ response }) {
    if (response.status === 401) unknown()
  },
})

/** A refusal with its sentence and its faults. */
export class Refused extends Error {
  readonly faults: { location: string; message: string }[]
  constructor(readonly problem: Problem) {
    super(problem.detail || problem.title || 'The program refused this without a reason.')
    this.faults = (problem.errors ?? []).map((e) => ({ location: e.location ?? '', message: e.message ?? '' }))
  }
}

/** The program could not be reached. */
export class Unreachable extends Error {
  constructor() {
    super('The program cannot be reached.')
  }
}

/** Unwraps an answer: its data, or Refused, or Unreachable. */
export async function answered<T>(call: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let result: { data?: T; error?: unknown }
  try {
    result = await call
  } catch {
    throw new Unreachable()
  }
  if (result.error !== undefined) throw new Refused(result.error as Problem)
  return result.data as T
}

/** A new id for a happening or a record; sending the same one twice stores it once. */
export function newID(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('')
}
