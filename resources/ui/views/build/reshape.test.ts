import { describe, expect, it } from 'vitest'
import type { Change, Step } from '@/api/client'
import { merge, split, unmergeable } from './reshape'

const step = (ref: string, more: Partial<Step> = {}): Step => ({ ref, section: 'Frame', title: ref, ...more })
const steps = [
  step('a', { position: 10, uses: { beam: 3, nut: 1 }, guide: '60 min', derived: 'join/a' }),
  step('b', { position: 20, after: ['a'], uses: { nut: 2 }, guide: '0.5 h', derived: 'join/b', tools: ['key'] }),
  step('c', { position: 30, after: ['b'] }),
]
/** The steps as they are once some changes are made. */
function made(changes: Change[]): Map<string, Step> {
  const after = new Map(steps.map((one) => [one.ref, structuredClone(one)]))
  for (const change of changes) {
    if (change.create) after.set(change.create.ref as string, change.create as unknown as Step)
    if (change.delete) after.delete(change.ref!)
    for (const { path, to } of change.set ?? []) {
      Object.assign(after.get(change.ref!)!, { [path[0] as string]: to ?? undefined })
    }
  }

  return after
}
const pieces = (all: Map<string, Step>, need: string) =>
  [...all.values()].reduce((sum, one) => sum + (one.uses?.[need] ?? 0), 0)

describe('steps split and merged', () => {
  it('loses no piece and no minute where a step is split, and what came after comes after both', () => {
    const all = made(split(steps[0]!, steps, ['nut'], 'a2', 'The nut'))
    expect(pieces(all, 'beam')).toBe(3)
    expect(pieces(all, 'nut')).toBe(3)
    expect(all.get('a2')).toMatchObject({ after: ['a'], position: 15, uses: { nut: 1 }, guide: '15 min' })
    expect(all.get('a')!.guide).toBe('45 min')
    expect(all.get('b')!.after).toEqual(['a', 'a2'])
  })
  it('keeps what both follow from where they are merged, and no step waits for one that is gone', () => {
    const all = made(merge(steps[0]!, steps[1]!, steps))
    expect(all.get('a')).toMatchObject({ uses: { beam: 3, nut: 3 }, also: ['join/b'], guide: '90 min', tools: ['key'] })
    expect(all.get('a')!.after).toBeUndefined()
    expect(all.get('c')!.after).toEqual(['a'])
    expect(all.has('b')).toBe(false)
  })
  it('refuses a merge about a step between, of what is done, and of two readings', () => {
    expect(unmergeable(steps[0]!, steps[2]!, steps)).toContain('“b” comes between')
    expect(unmergeable(steps[0]!, steps[1]!, steps)).toBeUndefined()
    expect(unmergeable(step('d', { state: 'done' }), steps[1]!, steps)).toContain('not open')
    const check = { what: 'gap', nominal: '0 mm', tolerance: '0.1 mm' }
    expect(unmergeable(step('d', { check }), step('e', { check }), steps)).toContain('reading')
  })
})
