import { computed, type Ref } from 'vue'
import type { Change, Need, Part } from '@/api/client'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'

/** The kind of a part, changed without deleting it: what the sheet of the new kind has no line for goes, and is named. */
export function useKind(need: Ref<Need | undefined>, part: Ref<Part | undefined>) {
  const { document: build } = useBuild()
  const { edit } = useEdit()
  const { data: catalogue } = useCatalogue()
  const kinds = computed(() =>
    (catalogue.value?.families ?? []).map((family) => ({ value: family.key, title: family.title })),
  )
  const familyOf = (key: string) => catalogue.value?.families.find((family) => family.key === key)

  /** Lines of its sheet that the other kind does not have. */
  function lost(kind: string): string[] {
    const kept = new Set((familyOf(kind)?.fields ?? []).map((field) => field.key))

    return Object.keys(part.value?.specs ?? {}).filter((key) => !kept.has(key))
  }

  async function ask(kind: string): Promise<string | null> {
    const names = familyOf(need.value!.family)?.fields ?? []
    const gone = lost(kind).map((key) => names.find((field) => field.key === key)?.label ?? key)

    return gone.length === 0
      ? null
      : `The sheet of a ${familyOf(kind)?.title ?? kind} has no ${gone.join(', no ')}: ${gone.length === 1 ? 'this line goes' : 'these lines go'}.`
  }

  /** Why the kind cannot change here; empty when it can. */
  const bound = computed(() => {
    const ref = part.value?.ref
    const other = (build.value?.needs ?? []).find(
      (one) => one.ref !== need.value?.ref && (one.candidates ?? []).includes(ref ?? ''),
    )

    return (need.value?.candidates ?? []).length > 1
      ? 'Other candidates are of the old kind: take them out first.'
      : other === undefined
        ? ''
        : `The same part is taken for ${other.role}: give that another part first.`
  })

  async function save(kind: string): Promise<unknown> {
    if (bound.value !== '') throw new Error(bound.value)
    const { ref, family, role } = need.value!
    const changes: Change[] = [{ section: 'needs', ref, set: [{ path: ['family'], was: family, to: kind }] }]
    if (part.value !== undefined) {
      changes.push({
        section: 'parts',
        ref: part.value.ref,
        set: [
          ...lost(kind).map((key) => ({ path: ['specs', key], to: null })),
          { path: ['family'], was: part.value.family, to: kind },
        ],
      })
    }

    return edit(`Kind of ${role}`, changes)
  }

  return { kinds, ask, save }
}
