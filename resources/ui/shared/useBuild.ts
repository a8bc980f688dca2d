import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useRoute } from 'vue-router'
import {
  api,
  Problem,
  type Build,
  type BuildDocument,
  type Catalogue,
  type Change,
  type EditResult,
  type Field,
  type Overview,
  type Path,
} from '@/api/client'
import { withWaiting } from '@/offline/overlay'
import { mayWait, post, useWaiting, wasNotReached } from '@/offline/useWaiting'
import { withChanges } from './findings'
import { uuid } from './refs'
import { mayChange } from './roles'
import { useNotices } from './useNotices'

type Section = Exclude<keyof BuildDocument, 'magpie' | 'build' | 'site' | 'brief'>

/** What the server works out of a build and the screen keeps until the build changes. */
export const derived = [
  'power',
  'money',
  'order',
  'frontier',
  'dates',
  'arrivals',
  'claims',
  'stock',
  'derived-steps',
  'way-back',
  'evening',
  'open-items',
  'documents',
  'bags',
  'look-ahead',
  'fault-case',
  'hours',
  'ladder',
  'alignments',
  'start-list',
  'upkeep',
  'book',
  'prints',
  'history',
  'finding',
  'scope',
  'routes',
  'true-cost',
  'comparison',
  'measure-first',
  'variants',
  'remedies',
  'wiring',
  'proposed-leads',
  'harness',
  'stops',
  'ports',
  'settings',
  'motion',
  'joints',
  'heat',
  'picture',
] as const
type Entry = { ref?: string }

export function useBuildId(): Ref<number> {
  const route = useRoute()

  return computed(() => Number(route.params.build ?? 0))
}

export function useCatalogue() {
  return useQuery({ queryKey: ['catalogue'], queryFn: () => api.get<Catalogue>('/api/catalogue'), staleTime: Infinity })
}

/** What a line of a sheet is, how it is found out, and which checks read it. */
export function useFieldHelp(): (field: Field) => string[] {
  const { data: catalogue } = useCatalogue()
  const titles = computed(() => new Map((catalogue.value?.checks ?? []).map((check) => [check.id, check.title])))

  return (field) => [
    field.help,
    field.find,
    field.checks.length === 0 ? '' : `Read by ${field.checks.map((id) => `${id} ${titles.value.get(id)}`).join(', ')}.`,
  ]
}

/** The grades of evidence, as the options of a field. */
export function useEvidence() {
  const { data: catalogue } = useCatalogue()

  return computed(() => (catalogue.value?.evidence ?? []).map((one) => ({ value: one.key, title: one.label })))
}

/** The build of the current address: its document and what is judged of it. */
export function useBuild() {
  const id = useBuildId()
  const waiting = useWaiting()
  const query = useQuery({
    queryKey: computed(() => ['build', id.value]),
    queryFn: async () => withWaiting(await api.get<Build>(`/api/builds/${id.value}`), waiting.of(id.value)),
    enabled: computed(() => id.value > 0),
    staleTime: Infinity,
    // An edit replaces what it touched and keeps the rest as it is; to compare all of it again would find just that.
    structuralSharing: false,
    // Entries are replaced, never written into: nobody has to watch each member of each of them.
    shallow: true,
  })
  const document = computed<BuildDocument | undefined>(() => query.data.value?.document)
  const overview = computed<Overview | undefined>(() => query.data.value?.overview ?? undefined)
  const demo = computed(() => query.data.value?.demo === true)
  /** What whoever looks may do with it. */
  const role = computed(() => query.data.value?.role)
  /** Why it cannot be read or judged; then there is no overview, and the frame offers to mend it. */
  const trouble = computed(() => query.data.value?.trouble ?? undefined)
  /** How far the background is with a build too large to be judged at once; until then the overview is an older one. */
  const judging = computed(() => query.data.value?.judging ?? undefined)
  const needs = computed(() => new Map((document.value?.needs ?? []).map((need) => [need.ref, need])))
  const parts = computed(() => new Map((document.value?.parts ?? []).map((part) => [part.ref, part])))
  const roleOf = (need: string) => needs.value.get(need)?.role ?? need
  /** A port by its part and its name: "24 V supply · out". */
  const portName = (port: string) => {
    const [need = '', name = ''] = port.split('.')

    return `${roleOf(need)} · ${name}`
  }
  /** The needs of some families, as the options of a field. */
  const needsOf = (...families: string[]) =>
    (document.value?.needs ?? [])
      .filter((need) => families.includes(need.family))
      .map((need) => ({ value: need.ref, title: need.role }))

  return { id, query, demo, role, document, overview, trouble, judging, needs, parts, roleOf, portName, needsOf }
}

/** What was taken back or done again, and what of it stayed because somebody has gone on from there. */
export function reverted(what: 'undo' | 'redo', result: Pick<EditResult, 'label' | 'left'>): string {
  const said = `${what === 'undo' ? 'Undone' : 'Redone'}: ${result.label}`
  if (result.left.length === 0) {
    return said
  }
  const first = result.left
    .slice(0, 2)
    .map((one) => `${one.section} ${one.ref} (${one.why.replace(/\.$/, '')})`)
    .join(', ')
  const more = result.left.length - 2

  return `${said}. Left as ${result.left.length === 1 ? 'it is' : 'they are'}: ${first}${more > 0 ? ` and ${more} more` : ''}.`
}

/** Lays the answer to an edit into what the screens hold of a build. */
export function useAbsorb() {
  const client = useQueryClient()
  const notices = useNotices()
  const waiting = useWaiting()

  return function absorb(id: number, result: EditResult): EditResult {
    const held = client.getQueryData<Build>(['build', id])
    // Another answer came in between: what this one adds to is no longer here, and all is fetched again.
    const late = result.findings !== null && held?.revision !== result.findings.since
    client.setQueryData<Build>(['build', id], (held) => {
      if (held === undefined) {
        return held
      }
      const document = { ...held.document }
      for (const { section, ref, entry } of result.entries) {
        if (section === 'build' || section === 'site' || section === 'brief') {
          Object.assign(document, { [section]: entry ?? {} })
          continue
        }
        const list = [...((document[section as Section] ?? []) as Entry[])]
        const at = list.findIndex((item) => item.ref === ref)
        if (entry === null) {
          if (at >= 0) list.splice(at, 1)
        } else if (at >= 0) {
          list[at] = entry
        } else {
          list.push(entry)
        }
        Object.assign(document, { [section]: list })
      }
      if (held.overview !== null && result.overview !== null) {
        notices.tallyChanged(held.overview.tally, result.overview.tally)
      }
      // Findings come alone where the server knew which of them this screen has.
      const overview = late
        ? held.overview
        : result.overview !== null && result.findings !== null
          ? { ...result.overview, findings: withChanges(held.overview?.findings ?? [], result.findings) }
          : result.overview

      return withWaiting(
        {
          ...held,
          revision: result.revision,
          document,
          overview,
          trouble: result.trouble,
          judging: result.judging,
        },
        waiting.of(id),
      )
    })
    for (const held of result.whole || late ? ['build', ...derived] : derived) {
      void client.invalidateQueries({ queryKey: [held, id] })
    }

    return result
  }
}

/** Edits of the current build. Each is one undoable act; the answer is laid into what the screen holds. */
export function useEdit() {
  const id = useBuildId()
  const client = useQueryClient()
  const notices = useNotices()
  const waiting = useWaiting()
  const lay = useAbsorb()
  const absorb = (result: EditResult) => lay(id.value, result)

  /** The revision whose findings this screen has, to be told only what an edit changes. */
  function seen(): { seen: number } | Record<string, never> {
    const held = client.getQueryData<Build>(['build', id.value])

    return held === undefined || held.overview === null ? {} : { seen: held.revision }
  }

  /**
   * Where the server cannot be reached, what is written at a bench waits on the device and counts as made.
   *
   * @param pictures that it names, and that have to be there first
   */
  async function edit(label: string, changes: Change[], pictures: { name: string; blob: Blob }[] = []): Promise<void> {
    const build = id.value
    const role = client.getQueryData<Build>(['build', build])?.role
    if (role !== undefined && !mayChange(role)) {
      throw new Error('You may read this build, not change it. People lists who can make you a builder.')
    }
    const one = { build, key: uuid(), label, changes, at: Date.now(), pictures }
    await waiting.send()
    const isBehind = waiting.of(build).some((other) => other.refused === undefined)
    if (!isBehind || !mayWait(changes)) {
      try {
        lay(build, await post(one, seen()))
        notices.told = `Stored: ${label}`

        return
      } catch (error) {
        if (!wasNotReached(error) || !mayWait(changes)) throw error
      }
    }
    await waiting.add(one)
    notices.told = `Kept on this device until there is a network: ${label}`
  }

  /** Changes one place, and is refused when another screen changed it first. */
  function set(label: string, section: string, ref: string, path: Path, was: unknown, to: unknown): Promise<void> {
    return edit(label, [{ section, ref, set: [{ path, was: was ?? null, to }] }])
  }

  /** Deletes one entry and says so; false when it was refused, which is said too. */
  async function remove(label: string, name: string, section: string, ref: string): Promise<boolean> {
    try {
      await edit(label, [{ section, ref, delete: true }])
      notices.say(`${name} is gone; u undoes it.`)
    } catch (error) {
      notices.problem(error)

      return false
    }

    return true
  }

  async function revert(what: 'undo' | 'redo'): Promise<void> {
    try {
      const result = absorb(await api.post<EditResult>(`/api/builds/${id.value}/${what}`, seen()))
      notices.say(reverted(what, result), result.left.length > 0)
    } catch (error) {
      notices.problem(error)
      if (error instanceof Problem && error.body.clashes !== undefined) {
        await client.invalidateQueries({ queryKey: ['build', id.value] })
      }
    }
  }

  return { edit, set, remove, absorb, undo: () => revert('undo'), redo: () => revert('redo') }
}

/** Something the server works out of the current build, asked for again whenever the build changes. */
export function useDerived<T>(what: (typeof derived)[number], path: () => string) {
  const id = useBuildId()

  return useQuery({
    queryKey: computed(() => [what, id.value, path()]),
    queryFn: () => api.get<T>(`/api/builds/${id.value}/${path()}`),
    enabled: computed(() => id.value > 0 && path() !== ''),
    placeholderData: (held) => held,
  })
}
