import { describe, expect, it } from 'vitest'
import type { ProposedLead } from '@/api/client'
import { laidOut } from './proposedRows'

const lead = (to: string, size: string) =>
  ({ from: 'psu.out', to, entry: { conductor: { size } }, others: [] }) as unknown as ProposedLead

describe('proposed leads that are asked for again', () => {
  it('keeps what was typed, takes up what is new, and lets go what is wired', () => {
    const rows = laidOut([lead('bed.power', '1.5 mm²'), lead('fan.power', '0.25 mm²')], [])
    expect(rows.map((row) => [row.taken, row.from, row.size, row.length])).toEqual([
      [true, 'psu.out', '1.5 mm²', ''],
      [true, 'psu.out', '0.25 mm²', ''],
    ])
    rows[0]!.length = '400'
    rows[0]!.taken = false
    rows[0]!.from = 'other.out'
    rows[1]!.size = '0.5 mm²'
    const again = laidOut(
      [lead('lamp.power', '0.5 mm²'), lead('bed.power', '2.5 mm²'), lead('fan.power', '1 mm²')],
      rows,
    )
    expect(again.map((row) => [row.lead.to, row.taken, row.from, row.size, row.length])).toEqual([
      ['lamp.power', true, 'psu.out', '0.5 mm²', ''],
      ['bed.power', false, 'other.out', '2.5 mm²', '400'],
      ['fan.power', true, 'psu.out', '0.5 mm²', ''],
    ])
    expect(laidOut([lead('bed.power', '1.5 mm²')], again)).toHaveLength(1)
  })
})
