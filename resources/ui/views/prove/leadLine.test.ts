import { describe, expect, it } from 'vitest'
import { readLead } from './leadLine'

const lead = (line: string) => {
  const read = readLead(line)

  return 'lead' in read ? read.lead : read.reason
}

describe('a lead typed in one line', () => {
  it('takes ends, size, length, run, fuse and what its ends are made with', () => {
    expect(lead('psu.out > board.power 1.5mm2 400mm ferrules')).toEqual({
      from: 'psu.out',
      to: 'board.power',
      conductor: { size: '1.5 mm²', evidence: 'standard' },
      length: '400 mm',
      ends: [{ termination: 'ferrule' }, { termination: 'ferrule' }],
    })
    expect(lead('board.heater0 -> bed.power 18 AWG 1,2 m moving ferrule crimp fuse F1 x2')).toEqual({
      from: 'board.heater0',
      to: 'bed.power',
      conductor: { size: '18 AWG', evidence: 'standard', parallel: 2 },
      length: '1.2 m',
      route: 'flexing',
      ends: [{ termination: 'ferrule' }, { termination: 'crimp' }],
      protection: 'F1',
    })
    expect(lead('a.out → b.in awg 22 16"')).toEqual({
      from: 'a.out',
      to: 'b.in',
      conductor: { size: '22 AWG', evidence: 'standard' },
      length: '16 in',
    })
    expect(lead('a.out>b.in')).toEqual({ from: 'a.out', to: 'b.in' })
  })

  it('says what it cannot read', () => {
    expect(lead('psu to board')).toContain('where it begins and where it ends')
    expect(lead('psu > board.power')).toContain('“psu” is no port')
    expect(lead('a.out > b.in 400')).toContain('“400” is neither')
    expect(lead('a.out > b.in x2')).toContain('needs a size')
    expect(lead('a.out > b.in > c.in')).toContain('where it begins')
  })
})
