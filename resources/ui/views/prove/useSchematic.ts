import type { ElkNode } from 'elkjs/lib/elk-api'
import { ref, shallowRef, watch, type Ref } from 'vue'
import type { Wiring } from '@/api/client'
import { laidOut } from '@/shared/layout'

export interface Box {
  need: string
  x: number
  y: number
  width: number
  height: number
}
interface Point {
  x: number
  y: number
}
export interface Run {
  ref: string
  points: Point[]
  label: Point
}
export interface Drawing {
  boxes: Box[]
  runs: Run[]
  width: number
  height: number
}

const boxWidth = 176
const boxHeight = 46
/** Room of a name such as "W12  11.7 A". */
const nameWidth = 60
const nameHeight = 12

/** Lays the wiring out from left, where the wall is, to right, where the loads are. */
export function useSchematic(map: Ref<Wiring | undefined>, shown: Ref<Set<string>>) {
  const drawing = shallowRef<Drawing>({ boxes: [], runs: [], width: 0, height: 0 })
  const busy = ref(false)
  let turn = 0

  async function lay(): Promise<void> {
    const wiring = map.value
    if (wiring === undefined) return
    const mine = ++turn
    busy.value = true
    const leads = [...wiring.leads, ...wiring.seats].filter((lead) => shown.value.has(lead.ref))
    const begins = new Set(leads.map((lead) => lead.from))
    const used = new Set(leads.flatMap((lead) => [lead.from, lead.to]))
    const ports = wiring.ports.filter((port) => used.has(port.ref))
    const needs = [...new Set(ports.map((port) => port.need))]
    const graph: ElkNode = {
      id: 'root',
      layoutOptions: {
        'elk.algorithm': 'layered',
        'elk.direction': 'RIGHT',
        'elk.edgeRouting': 'ORTHOGONAL',
        'elk.layered.spacing.nodeNodeBetweenLayers': '108',
        'elk.spacing.nodeNode': '18',
        'elk.spacing.edgeEdge': '9',
        'elk.spacing.edgeNode': '14',
        'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
        'elk.separateConnectedComponents': 'true',
      },
      children: needs.map((need) => ({
        id: need,
        width: boxWidth,
        height: Math.max(
          boxHeight,
          14 +
            14 *
              Math.max(
                ...['EAST', 'WEST'].map(
                  (side) =>
                    ports.filter((port) => port.need === need && sideOf(port.kind, begins.has(port.ref)) === side)
                      .length,
                ),
              ),
        ),
        layoutOptions: { 'elk.portConstraints': 'FIXED_SIDE' },
        ports: ports
          .filter((port) => port.need === need)
          .map((port) => ({
            id: port.ref,
            width: 0,
            height: 0,
            layoutOptions: { 'elk.port.side': sideOf(port.kind, begins.has(port.ref)) },
          })),
      })),
      edges: leads.map((lead) => ({ id: lead.ref, sources: [lead.from], targets: [lead.to] })),
    }
    const laid = await laidOut(graph)
    // A later change has overtaken this one.
    if (mine !== turn) return
    drawing.value = {
      boxes: (laid.children ?? []).map((box) => ({
        need: box.id,
        x: box.x ?? 0,
        y: box.y ?? 0,
        width: box.width ?? 0,
        height: box.height ?? 0,
      })),
      runs: named(
        (laid.edges ?? []).map((edge) => {
          const section = edge.sections?.[0]

          return {
            ref: edge.id,
            points: section === undefined ? [] : [section.startPoint, ...(section.bendPoints ?? []), section.endPoint],
          }
        }),
      ),
      width: laid.width ?? 0,
      height: laid.height ?? 0,
    }
    busy.value = false
  }
  watch([map, shown], () => void lay(), { immediate: true })

  return { drawing, busy }
}

/** What takes something in stands at the left; phases stand where their lead goes on. */
function sideOf(kind: string, begins: boolean): 'EAST' | 'WEST' {
  return kind === 'inlet' || (kind === 'phase' && !begins) ? 'WEST' : 'EAST'
}

/**
 * Puts the name of each run on its longest level stretch where no other name lies; on its longest where all are taken.
 */
export function named(runs: Omit<Run, 'label'>[]): Run[] {
  const taken: Point[] = []

  return runs.map((run) => {
    const places = levels(run.points).map(([a, b]) => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 - 4 }))
    const label = places.find((one) =>
      taken.every((other) => Math.abs(one.x - other.x) >= nameWidth || Math.abs(one.y - other.y) >= nameHeight),
    ) ??
      places[0] ?? { x: 0, y: 0 }
    taken.push(label)

    return { ...run, label }
  })
}

/** The level stretches of a run, the longest first. */
function levels(points: Point[]): [Point, Point][] {
  const all = points.slice(1).map((b, i): [Point, Point] => [points[i]!, b])
  const level = all.filter(([a, b]) => a.y === b.y)

  return (level.length ? level : all.slice(0, 1)).sort(([a, b], [c, d]) => Math.abs(d.x - c.x) - Math.abs(b.x - a.x))
}
