import type { Change, Step } from '@/api/client'

/** Minutes of a guide time as it is written, "45 min" or "1.5 h"; undefined where it is written in another way. */
function minutes(guide: string | null | undefined): number | undefined {
  const [, number, unit] = /^\s*([\d.]+)\s*(min|h)\s*$/.exec(guide ?? '') ?? []

  return number === undefined ? undefined : Number(number) * (unit === 'h' ? 60 : 1)
}
const toSet = (step: Step, key: keyof Step, to: unknown) => ({ path: [key], was: step[key] ?? null, to })
const listed = <T>(list: T[]): T[] | null => (list.length > 0 ? list : null)

/**
 * One step made two: what is named goes in at a second one that comes after it, with its reading and its share of the time; what
 * waited for the step waits for both.
 *
 * @param moved needs whose pieces go in at the second
 */
export function split(step: Step, steps: Step[], moved: string[], ref: string, title: string): Change[] {
  const uses = Object.entries(step.uses ?? {})
  const stays = Object.fromEntries(uses.filter(([need]) => !moved.includes(need)))
  const goes = Object.fromEntries(uses.filter(([need]) => moved.includes(need)))
  const time = minutes(step.guide)
  const pieces = (of: Record<string, number>) => Object.values(of).reduce((sum, one) => sum + one, 0)
  const all = pieces(stays) + pieces(goes)
  const share = all === 0 ? 0.5 : pieces(goes) / all
  const next = steps
    .map((one) => one.position ?? 0)
    .filter((position) => position > (step.position ?? 0))
    .sort((a, b) => a - b)[0]
  const second: Record<string, unknown> = {
    ref,
    title,
    section: step.section,
    position: Math.floor(((step.position ?? 0) + (next ?? (step.position ?? 0) + 20)) / 2),
    after: [step.ref],
    ...(Object.keys(goes).length ? { uses: goes } : {}),
    ...(step.tools ? { tools: step.tools } : {}),
    ...(step.cautions ? { cautions: step.cautions } : {}),
    ...(step.check ? { check: step.check } : {}),
    ...(time === undefined ? {} : { guide: `${Math.max(1, Math.round(time * share))} min` }),
  }

  return [
    { section: 'steps', create: second },
    {
      section: 'steps',
      ref: step.ref,
      set: [
        toSet(step, 'uses', Object.keys(stays).length ? stays : null),
        ...(step.check ? [toSet(step, 'check', null)] : []),
        ...(time === undefined ? [] : [toSet(step, 'guide', `${Math.max(1, Math.round(time * (1 - share)))} min`)]),
      ],
    },
    ...steps
      .filter((one) => one.after?.includes(step.ref))
      .map((one): Change => ({ section: 'steps', ref: one.ref, set: [toSet(one, 'after', [...one.after!, ref])] })),
  ]
}

/** Why a step cannot be merged into another, or nothing. */
export function unmergeable(into: Step, step: Step, steps: Step[]): string | undefined {
  if (into.check && step.check) return 'Both take a reading; a step has one.'
  for (const one of [into, step]) {
    if ((one.state ?? 'open') !== 'open') return `“${one.title}” is not open any more.`
  }
  const named = new Map(steps.map((one) => [one.ref, one]))
  const comesAfter = (ref: string, target: string, been = new Set<string>()): boolean =>
    (named.get(ref)?.after ?? []).some(
      (before) =>
        before === target || (!been.has(before) && (been.add(before), true) && comesAfter(before, target, been)),
    )
  for (const between of steps) {
    if (between.ref === into.ref || between.ref === step.ref) continue
    if (
      (comesAfter(between.ref, into.ref) && comesAfter(step.ref, between.ref)) ||
      (comesAfter(between.ref, step.ref) && comesAfter(into.ref, between.ref))
    ) {
      return `“${between.title}” comes between them.`
    }
  }

  return undefined
}

/** Two steps made one: it takes what the other has, and what waited for the other waits for it. */
export function merge(into: Step, step: Step, steps: Step[]): Change[] {
  const uses = { ...into.uses }
  for (const [need, pieces] of Object.entries(step.uses ?? {})) {
    uses[need] = (uses[need] ?? 0) + pieces
  }
  const times = [minutes(into.guide), minutes(step.guide)]
  const both = <T>(one: T[] | undefined, other: T[] | undefined) => [...new Set([...(one ?? []), ...(other ?? [])])]
  const also = both(into.also, [...(step.derived ? [step.derived] : []), ...(step.also ?? [])])
  const notes = [into.notes, step.notes].filter(Boolean).join('\n')

  return [
    {
      section: 'steps',
      ref: into.ref,
      set: [
        toSet(into, 'title', `${into.title}; ${step.title}`.slice(0, 200)),
        toSet(into, 'uses', Object.keys(uses).length ? uses : null),
        toSet(
          into,
          'after',
          listed(both(into.after, step.after).filter((before) => before !== into.ref && before !== step.ref)),
        ),
        toSet(into, 'tools', listed(both(into.tools, step.tools))),
        toSet(into, 'cautions', listed(both(into.cautions, step.cautions))),
        toSet(into, 'notes', notes || null),
        toSet(into, 'also', listed(also)),
        toSet(into, 'timings', listed([...(into.timings ?? []), ...(step.timings ?? [])])),
        toSet(into, 'guesses', listed([...(into.guesses ?? []), ...(step.guesses ?? [])])),
        ...(step.check ? [toSet(into, 'check', step.check)] : []),
        ...(step.energises ? [toSet(into, 'energises', true)] : []),
        ...(step.act && !into.act ? [toSet(into, 'act', step.act)] : []),
        ...(step.sets && !into.sets ? [toSet(into, 'sets', step.sets)] : []),
        ...(times[0] !== undefined && times[1] !== undefined
          ? [toSet(into, 'guide', `${Math.round(times[0] + times[1])} min`)]
          : []),
      ],
    },
    ...steps
      .filter((one) => one.ref !== into.ref && one.after?.includes(step.ref))
      .map((one): Change => ({
        section: 'steps',
        ref: one.ref,
        set: [toSet(one, 'after', [...new Set(one.after!.map((before) => (before === step.ref ? into.ref : before)))])],
      })),
    { section: 'steps', ref: step.ref, delete: true },
  ]
}
