import type { FullSpec } from '@/api/client'
import { useBuild, useEdit } from './useBuild'

/** What was read with an instrument, stored where the value lives; what was claimed before stays beside it. */
export function useReading() {
  const { parts } = useBuild()
  const { edit } = useEdit()

  /** What rested on nothing goes. */
  function rivalsAfter(before: FullSpec | string | boolean | undefined): { rivals?: FullSpec['rivals'] } {
    if (before === undefined) return {}
    const { rivals = [], ...claim } = typeof before === 'object' ? (before as FullSpec) : { value: before }
    const kept = [...rivals, ...(claim.evidence === undefined || claim.evidence === 'assumed' ? [] : [claim])].slice(-8)

    return kept.length > 0 ? { rivals: kept as FullSpec['rivals'] } : {}
  }

  return (at: { part: string; key: string; port?: string | null; label: string; instrument: string; flag?: boolean }) =>
    (text: string) => {
      const part = parts.value.get(at.part)
      const ports = [...(part?.ports ?? [])]
      const place = at.port ? ports.findIndex((port) => port.name === at.port) : -1
      const before = at.port ? ports[place]?.specs : part?.specs
      const spec = {
        value: at.flag ? text === 'yes' : text,
        evidence: 'measured',
        source: at.instrument,
        ...rivalsAfter(before?.[at.key]),
      }
      if (!at.port) {
        return edit(`Measured: ${at.label}`, [
          {
            section: 'parts',
            ref: at.part,
            set: [{ path: ['specs', at.key], was: part?.specs?.[at.key] ?? null, to: spec }],
          },
        ])
      }
      const own = ports[place] ?? { name: at.port, specs: {} }
      const after = { ...own, specs: { ...own.specs, [at.key]: spec } }

      return edit(`Measured: ${at.label}`, [
        {
          section: 'parts',
          ref: at.part,
          set: [
            {
              path: ['ports'],
              was: part?.ports ?? null,
              to: place < 0 ? [...ports, after] : ports.map((port, i) => (i === place ? after : port)),
            },
          ],
        },
      ])
    }
}
