import type { Component } from 'vue'
import type { JobView } from '@/shared/api/client'
import { later } from '@/shared/later'
import { capital } from '@/shared/words'
import { valveNow } from '../benchWords'
import type { Doing } from '../useJob'
import AdjustPanel from './AdjustPanel.vue'
import FreePanel from './FreePanel.vue'
import ReadPanel from './ReadPanel.vue'
import SafePanel from './SafePanel.vue'
import TurnPanel from './TurnPanel.vue'

// What a job does not begin a visit with, most often, is fetched after the first view.
const BarOverPanel = later(() => import('./BarOverPanel.vue'))
const ChoosePanel = later(() => import('./ChoosePanel.vue'))
const DonePanel = later(() => import('./DonePanel.vue'))
const HotPassPanel = later(() => import('./HotPassPanel.vue'))
const KindsPanel = later(() => import('./KindsPanel.vue'))
const PreparePanel = later(() => import('./PreparePanel.vue'))
const ShimPanel = later(() => import('./ShimPanel.vue'))
const SignPanel = later(() => import('./SignPanel.vue'))

type Action = JobView['state']['now']['action']

/** What the bench shows for an action of the core, and what its one large button does. */
export interface Panel {
  actions: Action[]
  /** Where the same action has panels by circumstance: whether this is the one. The first that fits is shown. */
  fits?(view: JobView): boolean
  panel: Component
  /** The large button: its words and what it does. */
  button?(view: JobView): string
  does?(view: JobView): Doing
  /** Where there is no such button: what is to be done instead. */
  hint?: string
  /** Brings its own button, so that the bench draws no foot. */ whole?: boolean
  /** Shows no pulley beside the instruction. */ noPulley?: boolean
  /** What of it scrolls by itself, so that it gives way to what stands around it. */ scrolls?:
    'scrolls' | 'scrolls leaves'
  /** Names the valve that was kept last, beside Undo. */ kept?: boolean
  /** Works on the valves at a stop: they are chosen by ← →, cautioned about, and judged. */ valves?: boolean
}

const turning = (view: JobView) => view.state.now
const twoStages = (view: JobView) => view.state.locking === 'nip_then_torque'
/** What keeping leads to is said: the same valve is set, or the next one is read. */
const keeping = ({ state: { now } }: JobView) =>
  now.sets_next ? `Keep, set ${now.valve}` : now.then ? `Keep, go to ${now.then}` : 'Keep'
const shimmed = (view: JobView) => view.engine.gear.means === 'exchanged'

export const panels: Panel[] = [
  { actions: ['choose_way'], panel: ChoosePanel, whole: true, noPulley: true, scrolls: 'scrolls' },
  { actions: ['prepare'], panel: PreparePanel, whole: true, noPulley: true },
  {
    actions: ['adjust'],
    fits: shimmed,
    panel: ShimPanel,
    whole: true,
    noPulley: true,
  },
  {
    actions: ['turn'],
    panel: TurnPanel,
    kept: true,
    button: (v) => capital(turning(v).instruction!.until),
    does: (v) => ({ kind: 'turned', stop: turning(v).stop }),
  },
  {
    actions: ['free'],
    panel: FreePanel,
    valves: true,
    button: () => 'Screw is free',
    does: (v) => ({ kind: 'freed', valve: turning(v).valve }),
  },
  {
    actions: ['read'],
    panel: ReadPanel,
    valves: true,
    kept: true,
    scrolls: 'scrolls leaves',
    hint: 'Tap how the feeler feels',
  },
  {
    actions: ['keep'],
    panel: ReadPanel,
    kept: true,
    valves: true,
    scrolls: 'scrolls leaves',
    button: (v) => keeping(v),
    does: (v) => ({ kind: 'kept', valve: turning(v).valve }),
  },
  {
    actions: ['adjust'],
    panel: AdjustPanel,
    valves: true,
    button: (v) => `${valveNow(v)!.name} is set`,
    does: (v) => {
      const { name, set_by_mm, set_by_angled } = valveNow(v)!
      return { kind: 'adjusted', valve: name, leaves_mm: set_by_mm, angled: set_by_angled }
    },
  },
  {
    actions: ['lock'],
    panel: AdjustPanel,
    valves: true,
    button: (v) => (!twoStages(v) ? 'Nut locked' : valveNow(v)!.nipped ? 'Nut torqued' : 'Nut nipped'),
    does: (v) => {
      const { valve } = turning(v)
      if (!twoStages(v)) return { kind: 'locked', valve }
      return valveNow(v)!.nipped ? { kind: 'locked', valve, by: 'torque' } : { kind: 'nipped', valve }
    },
  },
  {
    actions: ['bar_over'],
    panel: BarOverPanel,
    button: (v) => (turning(v).instruction ? capital(turning(v).instruction!.until) : 'Turns made'),
    does: (v) => ({ kind: 'barred_over', stop: turning(v).instruction ? turning(v).stop : undefined }),
  },
  { actions: ['sign'], panel: SignPanel, whole: true, noPulley: true },
  {
    actions: ['go_hot'],
    panel: HotPassPanel,
    button: () => 'Engine warm – begin the hot pass',
    does: () => ({ kind: 'went_hot' }),
  },
  { actions: ['done'], panel: DonePanel, whole: true, noPulley: true },
]

/** Before hands do anything. */
const safe: Panel = {
  actions: [],
  panel: SafePanel,
  noPulley: true,
  button: () => 'Made safe',
  does: () => ({ kind: 'task', task: 'safe' }),
}

/** Before the first verdict on a head that was drawn from a common pattern. */
const kinds: Panel = {
  actions: [],
  panel: KindsPanel,
  noPulley: true,
  button: () => 'The kinds are as drawn',
  does: () => ({ kind: 'task', task: 'kinds' }),
}

/** The panel for an action. */
export function panelFor(view: JobView, action: Action): Panel {
  if (view.state.now.make_safe && action === view.state.now.action) return safe
  if (view.state.now.confirm_kinds && action === view.state.now.action) return kinds
  return panels.find((p) => p.actions.includes(action) && (p.fits?.(view) ?? true))!
}
