import type { Build, BuildDocument, Change, Path } from '@/api/client'
import { isOpenDanger } from '@/shared/faults'

type Entry = { ref?: string } & Record<string, unknown>

/** A copy of a value with something else at a place of it; nothing said takes the member away. */
export function withAt(value: unknown, path: Path, to: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return to
  const copy = (
    Array.isArray(value)
      ? [...(value as unknown[])]
      : typeof key === 'number'
        ? []
        : { ...((value ?? {}) as Record<string, unknown>) }
  ) as Record<string | number, unknown>
  const inner = withAt(copy[key], rest, to)
  if (inner === null || inner === undefined) {
    if (Array.isArray(copy)) copy.splice(Number(key), 1)
    else delete copy[key]
  } else {
    copy[key] = inner
  }

  return copy
}

/** A document as it is once some changes are made to it; what they change and is not there stays away. */
export function withChangesMade(document: BuildDocument, changes: Change[]): BuildDocument {
  let after = document as unknown as Record<string, unknown>
  for (const change of changes) {
    const held = after[change.section]
    if (held !== undefined && !Array.isArray(held)) {
      after = {
        ...after,
        [change.section]: (change.set ?? []).reduce<unknown>((h, s) => withAt(h, s.path, s.to), held),
      }
      continue
    }
    const list = (held ?? []) as Entry[]
    if (change.create !== undefined) {
      const made = change.create as Entry
      after = { ...after, [change.section]: [...list.filter((one) => one.ref !== made.ref), made] }
    } else {
      after = {
        ...after,
        [change.section]:
          change.delete === true
            ? list.filter((one) => one.ref !== change.ref)
            : list.map((one) =>
                one.ref === change.ref
                  ? ((change.set ?? []).reduce<unknown>((h, s) => withAt(h, s.path, s.to), one) as Entry)
                  : one,
              ),
      }
    }
  }

  return after as unknown as BuildDocument
}

/**
 * What a build is once everything that waits to be sent is in it. Verdicts stay as the server last gave them; a danger that was
 * logged meanwhile takes the machine off power at once.
 */
export function withWaiting(build: Build, waiting: { changes: Change[] }[]): Build {
  if (waiting.length === 0) return build
  const document = waiting.reduce((held, one) => withChangesMade(held, one.changes), build.document)
  const dangers = (document.faults ?? []).filter(isOpenDanger).length

  return {
    ...build,
    document,
    overview:
      build.overview === null
        ? null
        : {
            ...build.overview,
            danger_faults: Math.max(dangers, build.overview.danger_faults),
            power_forbidden: build.overview.power_forbidden || dangers > 0,
          },
  }
}
