import type { BuildDocument, Change, Need } from '@/api/client'

/** What goes when needs go: they, the leads that end on them, and the parts and prices nothing else uses. */
export function goingWith(gone: Need[], build: BuildDocument | undefined): Change[] {
  const refs = new Set(gone.map((need) => need.ref))
  const kept = new Set(
    (build?.needs ?? [])
      .filter((need) => !refs.has(need.ref))
      .flatMap((need) => [need.choice, ...(need.candidates ?? [])]),
  )
  const orphans = new Set(
    gone
      .flatMap((need) => [need.choice, ...(need.candidates ?? [])])
      .filter((part) => part !== undefined && !kept.has(part)),
  )
  const remove = (section: string, ref: string): Change => ({ section, ref, delete: true })

  return [
    ...(build?.leads ?? [])
      .filter((lead) => [lead.from, lead.to].some((port) => refs.has(port.split('.')[0] ?? '')))
      .map((lead) => remove('leads', lead.ref)),
    ...[...refs].map((ref) => remove('needs', ref)),
    ...(build?.offers ?? []).filter((offer) => orphans.has(offer.part)).map((offer) => remove('offers', offer.ref)),
    ...(build?.parts ?? []).filter((part) => orphans.has(part.ref)).map((part) => remove('parts', part.ref)),
  ]
}
