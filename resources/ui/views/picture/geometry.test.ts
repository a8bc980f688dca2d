import { describe, expect, it } from 'vitest'
import type { MachinePicture } from '@/api/client'
import { around, boxOf, farFirst, flat, meetNow, moved, swept, toAndFro, type Axis, type Body } from './geometry'
import { nudged } from './usePlaces'

const axes: Axis[] = [
  { ref: 'x', name: 'X', along: 'x', travel: 300 },
  { ref: 'z', name: 'Z', along: 'z', travel: null },
]
const body = (key: string, low: number[], high: number[], carried: string[] = []): Body =>
  ({
    key,
    place: key,
    need: null,
    label: key,
    kind: 'part',
    low,
    high,
    carried,
    on: null,
    solid: true,
  }) as unknown as Body

describe('the picture', () => {
  it('moves what an axis carries, as far as its travel goes and no farther', () => {
    expect(moved(['x'], axes, { x: 120 })).toEqual([120, 0, 0])
    expect(moved(['x'], axes, { x: 900 })).toEqual([300, 0, 0])
    // Of an unknown travel nothing is shown.
    expect(moved(['z'], axes, { z: 50 })).toEqual([0, 0, 0])
    expect(swept(body('a', [0, 0, 0], [10, 10, 10], ['x']), axes).high).toEqual([310, 10, 10])
  })

  it('looks from above, from the front and from the right', () => {
    const sheet = { low: [0, 0, 0], high: [100, 80, 60] } as const
    const box = boxOf(body('a', [10, 20, 30], [15, 40, 60]))
    const on = (look: 'plan' | 'front' | 'side') => flat(box, look, { low: [...sheet.low], high: [...sheet.high] })
    expect(on('plan')).toEqual({ x: 10, y: 40, width: 5, height: 20 })
    expect(on('front')).toEqual({ x: 10, y: 0, width: 5, height: 30 })
    expect(on('side')).toEqual({ x: 20, y: 0, width: 20, height: 30 })
    const [near, far] = [body('near', [0, 0, 50], [9, 9, 60]), body('far', [0, 70, 0], [9, 80, 10])]
    expect(farFirst([near, far], 'plan').map((one) => one.key)).toEqual(['far', 'near'])
    expect(farFirst([near, far], 'front').map((one) => one.key)).toEqual(['far', 'near'])
  })

  it('tells which of the pairs that can meet do so where the axes stand', () => {
    const picture = {
      axes,
      bodies: [body('head', [0, 0, 0], [50, 50, 50], ['x']), body('post', [200, 0, 0], [240, 50, 50])],
      meetings: [{ one: 'head', other: 'post', gap: -45, wanted: 0, where: [{ axis: 'x', from: 150, to: 240 }] }],
    } as unknown as MachinePicture
    expect(meetNow(picture, { x: 149 })).toHaveLength(0)
    expect(meetNow(picture, { x: 150 })).toHaveLength(0)
    expect(meetNow(picture, { x: 151 })).toHaveLength(1)
    expect(meetNow(picture, { x: 241 })).toHaveLength(0)
  })

  it('holds everything and goes to both ends of a travel', () => {
    expect(around([boxOf(body('a', [5, 0, 0], [9, 9, 9])), boxOf(body('b', [-3, 2, 0], [1, 20, 4]))])).toEqual({
      low: [-3, 0, 0],
      high: [9, 20, 9],
    })
    expect(around([])).toEqual({ low: [0, 0, 0], high: [1, 1, 1] })
    expect(toAndFro(300, 0, 6)).toBeCloseTo(0)
    expect(toAndFro(300, 3, 6)).toBeCloseTo(300)
    expect(toAndFro(300, 6, 6)).toBeCloseTo(0)
  })

  it('nudges what is written in any unit of length, and says so where it cannot', () => {
    expect(nudged(undefined, 10)).toBe('10 mm')
    expect(nudged('-26 mm', -1)).toBe('-27 mm')
    expect(nudged('2 in', 10)).toBe('60.8 mm')
    expect(nudged('1.5 cm', 1)).toBe('16 mm')
    expect(nudged('about two', 1)).toBeNull()
  })
})
