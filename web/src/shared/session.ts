import { computed, ref, shallowRef } from 'vue'
import { answered, api, onUnknown, type Schemas } from './api/client'

export type Session = Schemas['Session']
export type Deed = Session['may'][number]

const session = shallowRef<Session | null>(null)
/** Counts up with everybody who comes: what pages show was read for somebody else. */
const comes = ref(0)

/** As who one is signed in here; empty: nobody is, or nobody is set up. */
const me = computed(() => session.value?.person?.name ?? '')
/** Whether somebody has to sign in before anything is shown. */
const locked = computed(() => session.value && !session.value.open && !session.value.person)

const kept = () => import('./keptSession')

function show(s: Session) {
  if (session.value && session.value.person?.id !== s.person?.id) comes.value++
  session.value = s
}

/** Takes in what the program says of who is here. */
function take(s: Session) {
  show(s)
  void kept()
    .then((k) => k.keepSession(s))
    .catch(() => {})
}

const load = () =>
  answered(api.GET('/api/v1/session')).then(take, async (e) => {
    if (!session.value) show((await kept()).lastSession(e))
  })

/** Whether a thing may be done here. Until that is known it is offered: the program decides. */
const may = (deed: Deed) => session.value?.may.includes(deed) ?? true

// Somebody was signed out meanwhile, by himself or by the time.
onUnknown(() => void load().catch(() => {}))

/** Who is at this screen. */
export const people = { session, comes, me, locked, may, load, take }
