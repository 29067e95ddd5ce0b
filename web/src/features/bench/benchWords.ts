import type { JobView, ValveState } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { gaps, mm } from '@/shared/units'
import { capital, shimOrigin, verdictWord } from '@/shared/words'
import { turnOf, untilDrags } from '@/shared/gearWords'

/** A headline: plain words, and the part that is picked out in brass. */
export interface Headline {
  before: string
  strong: string
  after: string
  /** One quiet line below. */
  sub: string
}

const line = (before: string, strong = '', after = '', sub = ''): Headline => ({ before, strong, after, sub })

/** The valve that the one next action is about. */
export function valveNow(view: JobView): ValveState | undefined {
  return view.state.valves.find((v) => v.name === view.state.now.valve)
}

/** The limits of a valve, as words. */
export function limitsOf(view: JobView, name: string): string {
  const { limits } = view.state.valves.find((v) => v.name === name)!
  return gaps(limits.in_thou).window(limits)
}

/** Whether a valve is an intake or an exhaust. */
export function kindOf(view: JobView, name: string): 'intake' | 'exhaust' {
  return view.engine.valves.find((v) => v.name === name)!.kind
}

/** The leaf to set a valve by, as words. */
export function settingLeaf(valve: ValveState): string {
  return valve.set_by || gaps(valve.limits.in_thou).say(valve.aim_mm)
}

/** How a valve is called: by its number too, where the sequence counts by it. */
export function called(view: JobView, name: string): string {
  const number = view.state.plan?.school === 'sum_rule' && view.engine.valves.find((v) => v.name === name)?.row_number
  return number ? `valve ${number} (${name})` : name
}

/** What locking usually does in this mechanic's hands, where it is known. */
export function shiftWords(view: JobView, valve: ValveState): string {
  const { enough, count, median_mm: median, spread_mm: spread } = view.lock_shift
  const { say } = gaps(valve.limits.in_thou)
  const own = view.state.own_shift_mm
  if (!enough && own !== 0 && valve.pre_lock_mm != null)
    return `${own < 0 ? 'Back it off a hair first' : 'Leave it a hair tight'}: set ${say(valve.pre_lock_mm)} for ${say(valve.aim_mm)}, as you say your nut ${own < 0 ? 'closes' : 'opens'} it by ${say(Math.abs(own))} (${count} of 5 times learned).`
  if (!enough || valve.pre_lock_mm == null || median === 0) return ''
  const does = median < 0 ? 'closes' : 'opens'
  return `Your lock nut usually ${does} the gap by ${say(Math.abs(median))} (${count} times, spread ${say(spread)}): set ${say(valve.pre_lock_mm)} for ${say(valve.aim_mm)}.`
}

/** The one instruction of the bench. */
export function headline(view: JobView): Headline {
  const { state } = view
  const { now } = state
  const valve = valveNow(view)
  const at = state.plan && state.stop >= 0 ? `${state.plan.stops[state.stop]!.standing}. ` : ''
  switch (now.action) {
    case 'choose_way':
      return line('Choose the ', 'sequence.')
    case 'prepare':
      if (state.temperatures.length) return line('Take the ', 'temperature.')
      return line('Take the engine’s ', 'temperature.')
    case 'turn': {
      const { how, until } = now.instruction!
      const why = now.confirm ? 'Nothing was entered for hours: somebody may have turned the crank.' : ''
      return line(`${how}${now.confirm ? '' : ' until'} `, `${until}.`, '', why)
    }
    case 'free':
      return line(`${at}Slacken `, `${called(view, now.valve)}.`)
    case 'read':
      if (valve!.stage === 'nut_tight')
        return line(view.engine.gear.lock_nut ? 'Locked. Read ' : 'Fitted. Read ', now.valve, ' again.')
      if (valve!.judgement?.conflict)
        return line(`${now.valve}: the readings `, 'disagree.', '', 'Take back the one you trust least.')
      if (valve!.judgement?.try_next) return line(`${now.valve}: try `, `${valve!.judgement.try_next}.`)
      if (state.phase === 'verify') return line(at + 'Check ', `${called(view, now.valve)}.`)
      return line(at + 'Read ', `${called(view, now.valve)}.`)
    case 'keep':
      return line(
        `${now.valve} is `,
        `${verdictWord[valve!.judgement!.verdict].toLowerCase()}.`,
        '',
        valve!.cross_check
          ? `To prove it: ${valve!.cross_check.down} falls through, ${valve!.cross_check.up} will not go.`
          : '',
      )
    case 'adjust': {
      const aim = settingLeaf(valve!)
      const screw = valve!.screw
      if (view.engine.gear.means === 'exchanged') return shimLine(view)
      const sub = untilDrags(view.engine.gear, aim)
      if (screw?.turn_deg == null) return line(`Set ${now.valve} to `, `${aim}.`, '', sub)
      return line('', `${turnOf(screw, view.engine.gear, now.valve)}.`, '', sub)
    }
    case 'lock':
      if (state.locking === 'nip_then_torque')
        return valve!.nipped
          ? line('Torque ', now.valve, ', then read it again.', torque(view))
          : line('Nip the nut of ', now.valve, '.', 'A ring spanner on the nut, a driver in the screw to hold it.')
      return line('Lock ', now.valve, ', then check again.', torque(view))
    case 'bar_over':
      return line(
        `${now.instruction?.how ?? 'Turn the crank full turns'}${now.instruction ? ' until ' : '.'}`,
        now.instruction ? `${now.instruction.until}.` : '',
        '',
        state.check === 'all'
          ? 'Then every valve is read again, and every lock nut felt.'
          : 'Then each valve that was set is read again, and every lock nut felt.',
      )
    case 'sign':
      return line('Account for all tools and leaves, ', 'then sign.')
    case 'go_hot':
      return line('Warm it up for the ', 'hot pass.')
    case 'done':
      return line('Signed by ', `${state.signed_by}.`)
  }
  return line('')
}

/** Torque in this person's unit, the other beside it, or what to do without a figure. */
export function torque(view: JobView): string {
  const nm = view.engine.locknut_torque_nm
  if (!nm) return 'No torque is printed: by hand feel, short of straining the thread. Hold the screw still.'
  return `Lock nut ${mine('torque').both(nm)}. Hold the screw still.`
}

/** The one next thing on shims, the same that the panel's button does. */
function shimLine({ state: { now, valves } }: JobView) {
  const { shim, valve } = now
  const at = valves.find((v) => v.name === valve)
  if (!shim && at && !at.shim_mm && !at.out)
    return line('Which shim is under ', `${valve}?`, '', 'Read it off, or measure it.')
  if (!shim) return line('No shim serves ', `${valve}.`, '', 'Leave it with a reason, or wait for the one to buy.')
  if (shim.source === 'stays') return line('Leave the stand-in under ', `${valve}`, ', and read it.')
  if (shim.do === 'stand_in') return line('Stand-in under ', `${valve}.`, '', 'Its own shim is wanted elsewhere.')
  return line('Fit ', `${mm(shim.shim_mm)} under ${valve}.`, '', capital(`${shimOrigin(shim.source, shim.from)}.`))
}
