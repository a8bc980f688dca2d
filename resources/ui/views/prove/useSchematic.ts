import type { ElkNode } from 'elkjs/lib/elk-api'
import { ref, shallowRef, watch, type Ref } from 'vue'
import type { Wiring } from '@/api/client'

export interface Box { need: string; x: number; y: number; width: number; height: number }
export interface Run { ref: string; points: { x: number; y: number }[]; label: { x: number; y: number } }
export interface Drawing { boxes: Box[]; runs: Run[]; width: number; height: number }

const boxWidth = 176
const boxHeight = 46

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
    const { default: Elk } = await import('elkjs/lib/elk.bundled.js')
    const leads = wiring.leads.filter((lead) => shown.value.has(lead.ref))
    const used = new Set(leads.flatMap((lead) => [lead.from, lead.to]))
    const ports = wiring.ports.filter((port) => used.has(port.ref))
    const needs = [...new Set(ports.map((port) => port.need))]
    const graph: ElkNode = {
      id: 'root',
      layoutOptions: {
        'elk.algorithm': 'layered', 'elk.direction': 'RIGHT', 'elk.edgeRouting': 'ORTHOGONAL', 'elk.layered.spacing.nodeNodeBetweenLayers': '64', 'elk.spacing.nodeNode': '18',
        'elk.spacing.edgeEdge': '9', 'elk.spacing.edgeNode': '14', 'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX', 'elk.separateConnectedComponents': 'true',
      },
      children: needs.map((need) => ({
        id: need, width: boxWidth, height: Math.max(boxHeight, 14 + 11 * Math.max(...['EAST', 'WEST'].map((side) => ports.filter((port) => port.need === need && sideOf(port.kind) === side).length))),
        layoutOptions: { 'elk.portConstraints': 'FIXED_SIDE' },
        ports: ports.filter((port) => port.need === need).map((port) => ({ id: port.ref, width: 0, height: 0, layoutOptions: { 'elk.port.side': sideOf(port.kind) } })),
      })),
      edges: leads.map((lead) => ({ id: lead.ref, sources: [lead.from], targets: [lead.to] })),
    }
    const laid = await new Elk().layout(graph)
    // A later change has overtaken this one.
    if (mine !== turn) return
    drawing.value = {
      boxes: (laid.children ?? []).map((box) => ({ need: box.id, x: box.x ?? 0, y: box.y ?? 0, width: box.width ?? 0, height: box.height ?? 0 })),
      runs: (laid.edges ?? []).map((edge) => {
        const section = edge.sections?.[0]
        const points = section === undefined ? [] : [section.startPoint, ...(section.bendPoints ?? []), section.endPoint]
        const [a, b] = longest(points)

        return { ref: edge.id, points, label: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 - 4 } }
      }),
      width: laid.width ?? 0,
      height: laid.height ?? 0,
    }
    busy.value = false
  }
  watch([map, shown], () => void lay(), { immediate: true })

  return { drawing, busy }
}

function sideOf(kind: string): 'EAST' | 'WEST' {
  return kind === 'inlet' || kind === 'phase' ? 'WEST' : 'EAST'
}

/** The longest level stretch of a run, where its name has room. */
function longest(points: { x: number; y: number }[]): [{ x: number; y: number }, { x: number; y: number }] {
  let best: [{ x: number; y: number }, { x: number; y: number }] = [points[0] ?? { x: 0, y: 0 }, points[1] ?? { x: 0, y: 0 }]
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!]
    if (a.y === b.y && Math.abs(b.x - a.x) > (best[0].y === best[1].y ? Math.abs(best[1].x - best[0].x) : 0)) best = [a, b]
  }

  return best
}
