import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'

/** Valves of which nothing is told, but what is said of each. */
export const untold = <V>(
  valves: V[],
  of: (v: V) => Partial<ValveShown> & { name: string },
): Record<string, ValveShown> =>
  Object.fromEntries(
    valves.map((v) => {
      const { name, ...said } = of(v)
      return [name, { figure: '', verdict: null, settable: true, untold: true, here: false, chosen: false, ...said }]
    }),
  )
