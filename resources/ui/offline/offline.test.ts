import 'fake-indexeddb/auto'
import { describe, expect, it } from 'vitest'
import type { Build, Change } from '@/api/client'
import { withAt, withChangesMade, withWaiting } from './overlay'
import { store } from './store'
import { mayWait, touched } from './useWaiting'

const build = (document: object): Build =>
  ({ document, overview: { danger_faults: 0, power_forbidden: false, tally: {} } }) as unknown as Build

describe('what waits is seen as if it were stored', () => {
  it('sets, adds to and takes away at any depth, and leaves what it began with alone', () => {
    const entry = { check: { nominal: '0 mm' }, timings: [{ start: 1 }] }
    expect(withAt(entry, ['check', 'measured'], '0.1 mm')).toEqual({
      check: { nominal: '0 mm', measured: '0.1 mm' },
      timings: [{ start: 1 }],
    })
    expect(withAt(entry, ['timings', 0, 'stop'], 5)).toMatchObject({ timings: [{ start: 1, stop: 5 }] })
    expect(withAt(entry, ['guesses', 0, 'what'], 'x')).toMatchObject({ guesses: [{ what: 'x' }] })
    expect(withAt(entry, ['check'], null)).toEqual({ timings: [{ start: 1 }] })
    expect(entry).toEqual({ check: { nominal: '0 mm' }, timings: [{ start: 1 }] })
  })

  it('creates once however often it is laid over, changes, and deletes', () => {
    const document = { steps: [{ ref: 'a', title: 'A' }] } as never
    const changes: Change[] = [
      { section: 'faults', create: { ref: 'X1', what: 'bent' } },
      { section: 'steps', ref: 'a', set: [{ path: ['state'], was: 'open', to: 'done' }] },
    ]
    const once = withChangesMade(document, changes)
    expect(withChangesMade(once, changes)).toEqual(once)
    expect(once).toEqual({ steps: [{ ref: 'a', title: 'A', state: 'done' }], faults: [{ ref: 'X1', what: 'bent' }] })
    expect(withChangesMade(once, [{ section: 'steps', ref: 'a', delete: true }]).steps).toEqual([])
    // Somebody deleted it meanwhile: it does not come back by being changed.
    expect(withChangesMade({ steps: [] } as never, changes.slice(1)).steps).toEqual([])
  })

  it('takes the machine off power for a danger that has not reached the server, and for nothing less', () => {
    const logged = (severity: string) =>
      withWaiting(build({}), [{ changes: [{ section: 'faults', create: { ref: 'X', what: 'x', severity } }] }])
        .overview!
    expect(logged('danger')).toMatchObject({ danger_faults: 1, power_forbidden: true })
    expect(logged('defect')).toMatchObject({ danger_faults: 0, power_forbidden: false })
  })

  it('holds only what is written at a bench', () => {
    const on = (section: string): Change[] => [{ section, ref: 'a', delete: true }]
    expect(mayWait(on('steps'))).toBe(true)
    expect(mayWait([...on('faults'), ...on('parts')])).toBe(false)
    expect(touched({ changes: [...on('steps'), { section: 'faults', create: { ref: 'X2' } }] })).toEqual([
      'steps/a',
      'faults/X2',
    ])
  })

  it('comes back in the order it was made, of one build or of all', async () => {
    const one = (of: number, label: string) => ({ build: of, key: label, label, changes: [], at: 0, pictures: [] })
    for (const waiting of [one(1, 'a'), one(2, 'b'), one(1, 'c')]) await store.put(waiting)
    expect((await store.all()).map((w) => w.label)).toEqual(['a', 'b', 'c'])
    const [first] = await store.of(1)
    await store.put({ ...first!, refused: { reason: 'no', clashes: [] } })
    expect((await store.of(1)).map((w) => w.label)).toEqual(['a', 'c'])
    await store.remove(first!.id!)
    expect((await store.all()).map((w) => w.label)).toEqual(['b', 'c'])
  })
})
