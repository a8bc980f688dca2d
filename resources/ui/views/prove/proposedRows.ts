import type { ProposedLead } from '@/api/client'

/** A proposed lead as it is laid out, with what was typed about it. */
export interface ProposedRow {
  lead: ProposedLead
  taken: boolean
  from: string
  size: string
  length: string
}

const keyOf = (lead: ProposedLead) => `${lead.from} ${lead.to}`

/** What is proposed now, and of each that was proposed before what was typed: a fresh answer loses nothing. */
export function laidOut(leads: ProposedLead[], before: ProposedRow[]): ProposedRow[] {
  const held = new Map(before.map((row) => [keyOf(row.lead), row]))

  return leads.map((lead) => {
    const fresh = {
      lead,
      taken: true,
      from: lead.from,
      size: lead.entry.conductor.size,
      length: lead.entry.length ?? '',
    }
    const row = held.get(keyOf(lead))
    if (row === undefined) return fresh
    const was = row.lead.entry

    return {
      lead,
      taken: row.taken,
      from: row.from,
      // What nobody touched follows the answer: a load that grew wants a thicker conductor.
      size: row.size === was.conductor.size ? fresh.size : row.size,
      length: row.length === (was.length ?? '') ? fresh.length : row.length,
    }
  })
}
