import type { JobView, ValveState } from '@/shared/api/client'
import { gaps } from '@/shared/units'

/** The valve that the one next action is about. */
export function valveNow(view: JobView): ValveState | undefined {
  return view.state.valves.find((v) => v.name === view.state.now.valve)
}

/** The limits of a valve, as words. */
export function limitsOf(view: JobView, name: string): string {
  const { limits } = view.state.valves.find((v) => v.name === name)!
  return gaps(limits.in_thou).window(limits)
}

/** The unit in which some valves' limits are told, to stand once over them; empty where they differ. */
export function unitOver(view: JobView, names: string[]): string {
  const thou = new Set(names.map((n) => view.state.valves.find((v) => v.name === n)!.limits.in_thou))
  return thou.size === 1 ? gaps([...thou][0]!).unit : ''
}

/** Whether a valve is an intake or an exhaust. */
export function kindOf(view: JobView, name: string): 'intake' | 'exhaust' {
  return view.engine.valves.find((v) => v.name === name)!.kind
}
