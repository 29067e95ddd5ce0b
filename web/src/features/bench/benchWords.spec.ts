import gears from '@/shared/engine/gears.fixture.json'
import type { Gear } from '@/shared/gearWords'
import { describe, expect, it } from 'vitest'
import type { JobView, Judgement, Sighting, ValveState } from '@/shared/api/client'
import { cylinderNotes, valvesShown } from './benchPicture'
import { panelFor } from './panels'
import { limitsOf } from './benchWords'

const judged = (verdict: Judgement['verdict'], tryNext: number[] = []): Judgement => ({
  verdict,
  sure: true,
  estimate_mm: verdict === 'undecided' ? null : 0.25,
  gap_low_mm: 0.24,
  gap_high_mm: 0.26,
  try_next_mm: tryNext,
  try_next: tryNext.map((t) => t.toFixed(2)).join(' + '),
  figure: verdict === 'undecided' ? { kind: 'below', mm: 0.305 } : { kind: 'at', mm: 0.25 },
  why: '',
  conflict: '',
})

const valve = (name: string, more: Partial<ValveState> = {}): ValveState => ({
  name,
  called: name,
  limits: { lower_mm: 0.28, upper_mm: 0.32, nominal_mm: 0.3, nominal_only: false, in_thou: false },
  settable: true,
  margin_deg: 128,
  clear_in_deg: 0,
  may_feel: false,
  play: '',
  taken_by: [],
  pending: true,
  stage: '',
  round: [],
  adjusted: 0,
  verified: false,
  done: '',
  left: '',
  needs: false,
  may_set: false,
  may_set_though: false,
  freed: false,
  nipped: false,
  locked_by: '',
  set_for: '',
  outside: false,
  aim_mm: 0.3,
  set_by_mm: [0.3],
  set_by_angled: [false],
  set_by: '0.30',
  caution: '',
  nut_says: '',
  with_nut: '',
  out: false,
  made_there: false,
  cold_reason: '',
  shim_mm: 0,
  shim_stamped_mm: 0,
  ...more,
})

const seen = (what: Sighting['what'], cylinder: number) => ({ what, cylinder, valve: '', mark_deg: 0 })
const ladder = [{ leaves_mm: [0.3], thickness_mm: 0.3, in_window: true, nominal: true }]

/** A two-cylinder job with stops at 0 and 360: cylinder 2 rocks for 1, then 1 for 2. */
function view(now: Partial<JobView['state']['now']>, state: Partial<JobView['state']> = {}): JobView {
  const names = ['E1', 'E2']
  return {
    engine: {
      locknut_torque_nm: 14,
      gear: gears[0] as Gear,
      locknut_torque_lbft: 10.33,
      valves: names.map((name) => ({
        name,
        kind: 'exhaust',
        cylinder: Number(name[1]),
        row_number: 1,
        lift: [],
        may_set: [],
      })),
    },
    state: {
      phase: 'as_found',
      stop: 0,
      crank_deg: 0,
      signed_by: '',
      valves: names.map((n) => valve(n)),
      plan: {
        stops: [
          { crank_deg: 0, watch: [seen('rocking', 2)], valves: ['E1'], standing: 'Cylinder 2 is rocking' },
          { crank_deg: 360, watch: [seen('rocking', 1)], valves: ['E2'], standing: 'Cylinder 1 is rocking' },
        ],
      },
      now: { action: 'read', valve: 'E1', stop: 0, turn_deg: 0, ladder, here: ['E1'], ...now },
      ...state,
    },
  } as unknown as JobView
}

const primary = (v: JobView) => panelFor(v, v.state.now.action).button?.(v) ?? ''

describe('the one large button', () => {
  it('confirms what is seen, keeps, and says where keeping leads', () => {
    const instruction = { how: 'Turn a further 360°', until: 'cylinder 1 rocks' }
    expect(primary(view({ action: 'turn', valve: '', stop: 1, turn_deg: 360, instruction }))).toBe('Cylinder 1 rocks')
    expect(primary(view({}))).toBe('')
    expect(primary(view({ action: 'keep', then: 'E2' }))).toBe('Keep, go to E2')
    expect(primary(view({ action: 'keep', then: '' }))).toBe('Keep')
  })
})

describe('the picture of the bench', () => {
  // 0.3048 mm are 12 thou, 0.254 mm 10 (1 in = 25.4 mm exactly, international yard and pound agreement, 1959).
  it('speaks of thousandths where the card gives inches alone', () => {
    const limits = { lower_mm: 0.254, upper_mm: 0.3556, nominal_mm: 0.3048, nominal_only: false, in_thou: true }
    const inch = valve('E1', { limits, set_by: '', aim_mm: 0.3048, judgement: judged('in'), round: [{} as never] })
    const job = view({ action: 'read', valve: 'E1' }, { valves: [inch] })
    expect(limitsOf(job, 'E1')).toBe('10–14')
    expect(valvesShown(job).E1).toMatchObject({ figure: '9.8', inThou: true })
  })
  it('writes under the cylinders what the bench says', () => {
    const notes = [{ cylinder: 2, text: 'rocking', strong: false }]
    expect(cylinderNotes(view({ notes }))[2]).toMatchObject({ text: 'rocking', strong: false })
  })
  it('shows readings in hand before kept ones', () => {
    const kept = { judgement: judged('in'), readings: [], at: '', stale: false, time_doubtful: false, off_aim: false }
    const inHand = valve('E1', {
      last: kept,
      round: [{ leaves_mm: [0.3], angled: [false], name: '0.30', feel: 'wont_go' }],
      judgement: judged('undecided', [0.28]),
    })
    const v = view({}, { valves: [inHand, valve('E2', { last: kept, pending: false })] })
    expect(valvesShown(v)['E1']).toMatchObject({ figure: '<0.305', verdict: 'undecided', here: true, chosen: true })
    expect(valvesShown(v)['E2']).toMatchObject({ figure: '0.25', verdict: 'in', here: false })
  })
})
