import type { EngineView } from '@/shared/api/client'

export interface Placed {
  name: string
  kind: 'intake' | 'exhaust'
  cylinder: number
  x: number
  y: number
  /** Towards its port: 1 down the page, −1 up, 0 not said. */
  port: number
}

export interface PlacedCylinder {
  number: number
  x: number
  y: number
  bank: number
}

export interface PlacedBank {
  name: string
  x: number
  y: number
  width: number
  height: number
  top: string
  bottom: string
  shafts: number[]
}

export interface HeadLayout {
  width: number
  height: number
  banks: PlacedBank[]
  cylinders: PlacedCylinder[]
  valves: Placed[]
  /** Without room for figures under the valves. */
  bare: boolean
}

/** Sizes of the drawing, in its own units (about a pixel on a tablet). */
const lead = 78
const head = 64
const rowHeight = 176
const bareRowHeight = 112
const foot = 24
const gap = 14
/** The least a drawing with targets may shrink to: a target of 72 is 44 pixels or more there. */
export const leastScale = 0.62
/** The same where the screen is a tablet's or wider: there the token itself is 44 pixels or more. */
export const wideScale = 0.755
/** How much of its size an open valve loses at full lift; where there are many, none, so that it stays large enough. */
export const shrinks = (width: number) => (width > 800 ? 0 : 0.2)
/** Room for the side labels above and below a casting. */
const label = 26

/**
 * Places every valve as seen from above with the front of the engine on the left: what is left of the engine (seen from
 * its rear, looking forward) lies at the bottom of the page. A bank leaning clockwise, seen from the front, lies lower.
 */
export function layOut(engine: EngineView, bare = false): HeadLayout {
  const kinds = new Map(engine.valves.map((v) => [v.name, v]))
  const perSlot = Math.max(2, ...engine.banks.flatMap((b) => b.rows.map((r) => r.valves.length / b.cylinders.length)))
  const most = Math.max(...engine.banks.map((b) => b.cylinders.length)) * perSlot
  const slot = perSlot * (most > 8 ? 72 : 84)
  const out: HeadLayout = { width: 0, height: 0, banks: [], cylinders: [], valves: [], bare }
  const pitch = bare ? bareRowHeight : rowHeight
  let y = 0
  const order = engine.banks.map((_, i) => i).sort((a, b) => engine.banks[a]!.angle_deg - engine.banks[b]!.angle_deg)
  for (const index of order) {
    const bank = engine.banks[index]!
    const rows = [...bank.rows].sort((a, b) => (a.side === b.side ? 0 : a.side === 'right' ? -1 : 1))
    const intakeBelow = bank.intake_ports === '' ? 0 : bank.intake_ports === 'left' ? 1 : -1
    const side = (below: number) => (intakeBelow === 0 ? '' : intakeBelow === below ? 'Intake side' : 'Exhaust side')
    y += side(-1) ? label : 0
    const height = head + rows.length * pitch + foot
    const width = bank.cylinders.length * slot + 24
    const placed: PlacedBank = {
      name: bank.name,
      x: lead,
      y,
      width,
      height,
      top: side(-1),
      bottom: side(1),
      shafts: [],
    }
    bank.cylinders.forEach((number, i) => {
      out.cylinders.push({ number, bank: index, x: lead + 12 + (i + 0.5) * slot, y: y + 46 })
    })
    rows.forEach((row, r) => {
      const rowY = y + head + 66 + r * pitch
      placed.shafts.push(rowY - 58)
      const step = (bank.cylinders.length * slot) / row.valves.length
      row.valves.forEach((name, i) => {
        const v = kinds.get(name)!
        const port = v.kind === 'intake' ? intakeBelow : -intakeBelow
        out.valves.push({ name, kind: v.kind, cylinder: v.cylinder, x: lead + 12 + (i + 0.5) * step, y: rowY, port })
      })
    })
    out.banks.push(placed)
    out.width = Math.max(out.width, lead + width + 4)
    y += height + (side(1) ? label : 0) + gap
  }
  out.height = y - gap
  return out
}

/** Whether an engine is a good deal wider than it is long, as it is drawn. */
export function isWide(engine: EngineView): boolean {
  const { width, height } = layOut(engine)
  return height > 1.3 * width
}

/** Where the front of the engine lies for whoever stands over it: at the left hand, at the right hand, or near. */
export type Stand = 'left' | 'right' | 'near'
export const stands: Stand[] = ['left', 'right', 'near']
export const standWords: Record<Stand, string> = {
  left: 'front on the left',
  right: 'front on the right',
  near: 'front towards you',
}

/** The engine walked round to its other side: what was rear is front, what was left is right. */
function fromTheOtherSide(engine: EngineView): EngineView {
  const other = (side: string) => ({ left: 'right', right: 'left' })[side] ?? side
  return {
    ...engine,
    banks: engine.banks.map((b) => ({
      ...b,
      angle_deg: -b.angle_deg,
      cylinders: [...b.cylinders].reverse(),
      intake_ports: other(b.intake_ports),
      rows: b.rows.map((r) => ({ side: other(r.side) as typeof r.side, valves: [...r.valves].reverse() })),
    })),
  }
}

/** The layout as seen from where somebody stands. Seen with the front near, the page is turned a quarter: rows run up it. */
export function layOutFrom(engine: EngineView, stand: Stand, bare = false): HeadLayout {
  if (stand === 'left') return layOut(engine, bare)
  if (stand === 'right') {
    const seen = layOut(fromTheOtherSide(engine), bare)
    const back = <T extends { x: number }>(list: T[]) => list.map((p) => ({ ...p, x: p.x - lead + 4 }))
    return { ...seen, banks: back(seen.banks), cylinders: back(seen.cylinders), valves: back(seen.valves) }
  }
  const seen = layOut(engine, bare)
  const up = (x: number) => seen.width - x
  return {
    ...seen,
    width: seen.height,
    height: seen.width,
    banks: seen.banks.map((b) => ({ ...b, x: b.y, y: up(b.x + b.width), width: b.height, height: b.width })),
    cylinders: seen.cylinders.map((c) => ({ ...c, x: c.y, y: up(c.x) })),
    valves: seen.valves.map((v) => ({ ...v, x: v.y, y: up(v.x) })),
  }
}

/** The open fraction of a valve at any crank position, between the points of its lift curve. */
export function liftAt(curve: number[], crank: number): number {
  const at = ((((crank % 720) + 720) % 720) / 720) * (curve.length - 1)
  const i = Math.floor(at)
  const a = curve[i] ?? 0
  const b = curve[i + 1] ?? a
  return a + (b - a) * (at - i)
}

/** Where a cylinder's ring lies around its valves, and the word under it. */
export interface PlacedBore extends PlacedCylinder {
  left: number
  width: number
  top: number
  height: number
  /** The word's place. */
  word: number
  foot: number
}

/** The rings around the cylinders; near: the front of the engine lies towards whoever looks. */
export function boresOf(layout: HeadLayout, near: boolean): PlacedBore[] {
  return layout.cylinders.map((c) => {
    const bank = layout.banks.find((b) => c.y > b.y && c.y < b.y + b.height && c.x > b.x && c.x < b.x + b.width)!
    const own = layout.valves.filter((v) => v.cylinder === c.number)
    const ends = own.map((v) => (near ? v.y : v.x))
    const [from, span] = [Math.min(...ends) - 40, Math.max(...ends) - Math.min(...ends) + 80]
    if (near)
      return {
        ...c,
        left: bank.x + 66,
        width: bank.width - 82,
        top: from,
        height: span,
        foot: from + 19,
        word: bank.x + bank.width - 26,
      }
    return {
      ...c,
      left: from,
      width: span,
      top: bank.y + 66,
      height: bank.height - 102,
      foot: bank.y + bank.height - 14,
      word: c.x,
    }
  })
}
