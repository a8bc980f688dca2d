import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Errand, Offer } from '@/api/client'
import { later } from '@/views/buy/prices'
import { today } from './format'
import { inFull, saidOf } from './specs'
import { useErrand } from './useErrand'
import { useInTurn } from './useInTurn'

const server = vi.hoisted(() => ({ calls: [] as string[], answers: [] as unknown[] }))
vi.mock('@/shared/useBuild', () => ({ useBuildId: () => ({ value: 7 }) }))
vi.mock('vue', async (original) => ({ ...(await original<typeof import('vue')>()), onBeforeUnmount: () => undefined }))
vi.mock('@/api/client', () => {
  const call = (method: string) => async (path: string) => {
    server.calls.push(`${method} ${path}`)
    const next = server.answers.shift()
    if (next instanceof Error) throw next

    return next
  }

  return { api: { get: call('GET'), post: call('POST'), delete: call('DELETE') }, Problem: class extends Error {} }
})

const errand = (state: Errand['state'], more: Partial<Errand> = {}): Errand => ({
  key: 'k',
  kind: 'mesh',
  name: 'a.stl',
  state,
  revision: 1,
  done: 0,
  of: 0,
  at: '2026-11-28T20:00:00Z',
  answer: null,
  file: false,
  trouble: null,
  ...more,
})

describe('an errand', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    server.calls = []
    server.answers = []
  })
  afterEach(() => void vi.useRealTimers())

  it('is followed to its end, past a look that failed', async () => {
    const { send, errand: seen, goes } = useErrand<{ triangles: number }>('mesh')
    server.answers = [
      errand('waiting'),
      new Error('no answer'),
      errand('running', { done: 1, of: 4 }),
      errand('done', { answer: { triangles: 12 } as never }),
    ]
    const came = send()
    await vi.advanceTimersByTimeAsync(300)
    expect(goes.value).toBe(true)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(await came).toEqual({ triangles: 12 })
    expect([goes.value, seen.value?.state]).toEqual([false, 'done'])
    expect(server.calls).toEqual(['POST /api/builds/7/errands', ...Array(3).fill('GET /api/builds/7/errands/k')])
  })

  it('says why it failed, and nothing comes of one that was stopped', async () => {
    const { send, stop } = useErrand('mesh')
    server.answers = [errand('failed', { trouble: 'This file cannot be read.' })]
    await expect(send()).rejects.toThrow('This file cannot be read.')
    server.answers = [errand('waiting'), errand('stopped')]
    const came = send()
    await vi.advanceTimersByTimeAsync(10)
    await stop()
    server.answers = [errand('stopped')]
    await vi.advanceTimersByTimeAsync(1000)
    expect(await came).toBeNull()
  })
})

describe('what is picked one after the other', () => {
  it('starts from what the one before left, also when that was refused', async () => {
    const inTurn = useInTurn()
    let held: string[] = []
    const add = (one: string, refused = false) =>
      inTurn(async () => {
        const from = held
        await Promise.resolve()
        if (refused) throw new Error('refused')
        held = [...from, one]
      })
    const all = await Promise.allSettled([add('a'), add('b', true), add('c')])
    expect(held).toEqual(['a', 'c'])
    expect(all.map((one) => one.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
  })
})

describe('a value of a sheet', () => {
  it('is read in short and in full', () => {
    expect([
      saidOf('24 V'),
      saidOf({ value: '24 V' }),
      saidOf(false),
      saidOf({ value: true }),
      saidOf(undefined),
    ]).toEqual(['24 V', '24 V', 'no', 'yes', undefined])
    expect(inFull('24 V')).toEqual({ value: '24 V' })
    expect(inFull({ value: '24 V', evidence: 'measured' })).toEqual({ value: '24 V', evidence: 'measured' })
    expect(inFull(undefined)).toBeUndefined()
  })
})

describe('another price', () => {
  const offer = (date: string, past?: Offer['past']) => ({ ref: 'O1', part: 'p', price: '4.60', date, past }) as Offer

  it('keeps what it was on an earlier day, and nothing of the same day', () => {
    expect(later(offer(today()))).toEqual([])
    expect(later(offer('2026-01-02', [{ date: '2025-01-02', price: '4.10' }]))).toEqual([
      { path: ['date'], was: '2026-01-02', to: today() },
      {
        path: ['past'],
        was: [{ date: '2025-01-02', price: '4.10' }],
        to: [
          { date: '2025-01-02', price: '4.10' },
          { date: '2026-01-02', price: '4.60' },
        ],
      },
    ])
  })
})
