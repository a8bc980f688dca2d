import type { FindingSummary, FindingsChange, Verdict } from '@/api/client'

export const verdictOrder: Verdict[] = ['danger', 'fails', 'tight', 'unproven', 'holds']

/** What was told of findings, with what an edit tells otherwise laid into it: what matters most first. */
export function withChanges(held: FindingSummary[], change: FindingsChange): FindingSummary[] {
  const byKey = new Map(held.map((finding) => [finding.key, finding]))
  change.gone.forEach((key) => byKey.delete(key))
  change.changed.forEach((finding) => byKey.set(finding.key, finding))

  return [...byKey.values()].sort(
    (a, b) =>
      verdictOrder.indexOf(a.verdict) - verdictOrder.indexOf(b.verdict) ||
      (a.margin ?? 0) - (b.margin ?? 0) ||
      (a.key < b.key ? -1 : 1),
  )
}
