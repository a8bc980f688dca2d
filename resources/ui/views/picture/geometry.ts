import type { MachinePicture } from '@/api/client'
import { written } from '@/shared/decimals'

export type Body = MachinePicture['bodies'][number]
export type Axis = MachinePicture['axes'][number]
export type Meeting = MachinePicture['meetings'][number]
export type Point = [number, number, number]
export type Look = 'plan' | 'front' | 'side'
/** Where each axis stands, in mm from the low end of its travel. */
export type Stand = Record<string, number>

export const directions = ['x', 'y', 'z'] as const

/** Which direction runs to the right, which up, which away, and whether what is nearer has the larger number. */
const LOOKS: Record<Look, { across: 0 | 1 | 2; up: 0 | 1 | 2; away: 0 | 1 | 2; nearIsHigh: boolean }> = {
  plan: { across: 0, up: 1, away: 2, nearIsHigh: true },
  front: { across: 0, up: 2, away: 1, nearIsHigh: false },
  side: { across: 1, up: 2, away: 0, nearIsHigh: true },
}

/** How far a body is moved by the axes that carry it. */
export function moved(carried: string[], axes: Axis[], stand: Stand): Point {
  const by: Point = [0, 0, 0]
  for (const axis of axes)
    if (carried.includes(axis.ref))
      by[directions.indexOf(axis.along)]! += Math.min(stand[axis.ref] ?? 0, axis.travel ?? 0)

  return by
}

export interface Box {
  low: Point
  high: Point
}

export const boxOf = (body: { low: number[]; high: number[] }, by: Point = [0, 0, 0]): Box => ({
  low: by.map((step, d) => body.low[d]! + step) as Point,
  high: by.map((step, d) => body.high[d]! + step) as Point,
})

/** All a body sweeps over the whole travel of what carries it. */
export function swept(body: Body, axes: Axis[]): Box {
  const ends = Object.fromEntries(axes.map((axis) => [axis.ref, axis.travel ?? 0]))

  return { low: body.low as Point, high: boxOf(body, moved(body.carried, axes, ends)).high }
}

/** A box on the sheet, y down, from the left top corner of the sheet. */
export function flat(box: Box, look: Look, sheet: Box): { x: number; y: number; width: number; height: number } {
  const { across, up } = LOOKS[look]

  return {
    x: box.low[across] - sheet.low[across],
    y: sheet.high[up] - box.high[up],
    width: box.high[across] - box.low[across],
    height: box.high[up] - box.low[up],
  }
}

export function point(at: number[], look: Look, sheet: Box): [number, number] {
  const { across, up } = LOOKS[look]

  return [at[across]! - sheet.low[across], sheet.high[up] - at[up]!]
}

export const sheetSize = (look: Look, sheet: Box): { width: number; height: number } => {
  const { across, up } = LOOKS[look]

  return { width: sheet.high[across] - sheet.low[across], height: sheet.high[up] - sheet.low[up] }
}

/** Farther ones first, so that nearer ones are drawn over them. */
export function farFirst<T extends { low: number[]; high: number[] }>(bodies: T[], look: Look): T[] {
  const { away, nearIsHigh } = LOOKS[look]

  return [...bodies].sort((a, b) => (nearIsHigh ? a.high[away]! - b.high[away]! : b.low[away]! - a.low[away]!))
}

/** Everything that has to be on the sheet. */
export function around(boxes: Box[]): Box {
  const edge = (pick: (box: Box) => Point, best: (...of: number[]) => number) =>
    [0, 1, 2].map((d) => best(...boxes.map((box) => pick(box)[d]!))) as Point

  return boxes.length === 0
    ? { low: [0, 0, 0], high: [1, 1, 1] }
    : { low: edge((box) => box.low, Math.min), high: edge((box) => box.high, Math.max) }
}

/** The pairs that overlap where the axes stand now. */
export function meetNow(picture: MachinePicture, stand: Stand): Meeting[] {
  const bodies = new Map(picture.bodies.map((body) => [body.key, body]))

  return picture.meetings.filter((meeting) => {
    const [one, other] = [bodies.get(meeting.one), bodies.get(meeting.other)]
    if (meeting.gap === null || meeting.gap >= 0 || one === undefined || other === undefined) return false
    const a = boxOf(one, moved(one.carried, picture.axes, stand))
    const b = boxOf(other, moved(other.carried, picture.axes, stand))

    return [0, 1, 2].every((d) => a.low[d]! < b.high[d]! - 0.01 && b.low[d]! < a.high[d]! - 0.01)
  })
}

/** Where an axis stands after so many seconds of going to and fro, a little slower at the ends. */
export const toAndFro = (travel: number, seconds: number, period: number): number =>
  (travel * (1 - Math.cos((2 * Math.PI * seconds) / period))) / 2

/** A length as a person reads it, "12 mm", in their own manner. */
export const mm = (value: number, places = 0): string => `${written(String(Number(value.toFixed(places))))} mm`
