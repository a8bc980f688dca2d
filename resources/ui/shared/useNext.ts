import { computed } from 'vue'
import { useBuild, useCatalogue } from './useBuild'

export type Next = { key: string; says: string; to: string; done: boolean }

/** What comes next in a build, ticking itself off: each line opens the place where it is done. */
export function useNext() {
  const { id, document: build, overview, parts } = useBuild()
  const { data: catalogue } = useCatalogue()
  const at = (path: string) => `/builds/${id.value}/${path}`
  const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

  /** Places whose part takes power and that no lead or slot feeds. */
  const unfed = computed(() => {
    const reached = new Set((build.value?.leads ?? []).flatMap((lead) => [lead.from, lead.to]))
    const families = new Map((catalogue.value?.families ?? []).map((family) => [family.key, family]))

    return (build.value?.needs ?? []).filter((need) => {
      const ports = families.get(need.family)?.ports ?? []
      const draws = ports.filter((port) => port.kind === 'inlet' && port.draws)

      return (
        need.choice !== undefined &&
        need.sits_in === undefined &&
        draws.length > 0 &&
        draws.every((port) => !reached.has(`${need.ref}.${port.name}`))
      )
    })
  })
  const next = computed<Next[]>(() => {
    const document = build.value
    if (document === undefined) return []
    const site = document.site ?? {}
    const needs = document.needs ?? []
    const undecided = needs.filter((need) => need.choice === undefined)
    const stand = needs.filter((need) => {
      const part = need.choice === undefined ? undefined : parts.value.get(need.choice)

      return Object.values(part?.specs ?? {}).some(
        (spec) => typeof spec === 'object' && spec.source?.startsWith('starter:') === true,
      )
    })
    const leads = document.leads ?? []
    const unsized = leads.filter((lead) => lead.conductor?.evidence === 'assumed' || lead.conductor?.size === undefined)
    const causes = overview.value?.causes ?? []
    const grave = causes.filter((cause) => cause.verdict === 'danger' || cause.verdict === 'fails').length

    return [
      {
        key: 'work',
        says: 'Say what it must make, and how large that is',
        to: at('scope/brief'),
        done: (document.workpieces ?? []).length > 0,
      },
      {
        key: 'site',
        says: 'Say where it will stand: mains voltage, outlet, air',
        to: at('scope/brief'),
        done: site.mains_voltage !== undefined && site.outlet !== undefined && site.ambient !== undefined,
      },
      {
        key: 'parts',
        says:
          needs.length === 0
            ? 'Add the first parts, or bring a list of them'
            : undecided.length > 0
              ? `Choose a part for ${counted(undecided.length, 'place', 'places')}`
              : stand.length > 0
                ? `Put your own part in ${counted(stand.length, 'place', 'places')} the starter filled`
                : 'Every place has a part',
        to: at('choose/parts'),
        done: needs.length > 0 && undecided.length === 0 && stand.length === 0,
      },
      {
        key: 'feeds',
        says:
          needs.length === 0
            ? 'Wire the parts that take power'
            : unfed.value.length > 0
              ? `Wire ${counted(unfed.value.length, 'part that has', 'parts that have')} no feed`
              : 'Every part that takes power is fed',
        to: at('prove/leads?propose'),
        done: needs.length > 0 && unfed.value.length === 0,
      },
      {
        key: 'sizes',
        says:
          leads.length === 0
            ? 'Give every lead its size'
            : unsized.length > 0
              ? `Confirm the size of ${counted(unsized.length, 'lead', 'leads')}`
              : 'Every lead has a size',
        to: at('prove/leads'),
        done: leads.length > 0 && unsized.length === 0,
      },
      {
        key: 'causes',
        says:
          grave > 0
            ? `Put right ${counted(grave, 'thing', 'things')} that can hurt or break`
            : 'Nothing hurts or breaks',
        to: at('prove/fit'),
        done: needs.length > 0 && grave === 0,
      },
    ]
  })

  return { next, unfed }
}
