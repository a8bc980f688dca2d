import { amountOf, asKept, told, writeComma, written } from './decimals'
import { itemsOf } from './lists'
import { nextStop } from './useRoving'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { FindingSummary, Verdict } from '@/api/client'
import { csvText } from './download'
import { withChanges } from './findings'
import { dayDone, hoursLeft, leftOut } from './forecast'
import { inMetres, inSquare, clock, margin, millimetres, money, percent, words } from './format'
import { freeRef, nextRef, refFrom } from './refs'
import { usePanel } from './usePanel'

describe('numbers that are typed', () => {
  it.each([
    ['4,90', '4.90'],
    ['4.90', '4.90'],
    ['1.234,56', '1234.56'],
    ['1,234.56', '1234.56'],
    ['12', '12'],
    ['1,234', null],
    ['1.23,45', null],
    ['-5', null],
    ['a lot', null],
  ])('%s is the amount %s', (typed, amount) => {
    expect(amountOf(typed)).toBe(amount)
  })
  it('a comma ends no item of a list', () => {
    expect(itemsOf('4,90')).toEqual(['4,90'])
    expect(itemsOf('10: 4,20; 50: 3,90\n')).toEqual(['10: 4,20', '50: 3,90'])
  })
})

describe('how figures are written', () => {
  it.each([
    ['1066.39', 'GBP', '£1,066.39'],
    ['-12.50', 'EUR', '−€12.50'],
    ['1234567.00', 'USD', '$1,234,567.00'],
    ['3.20', 'CHF', 'CHF 3.20'],
    ['0.00', 'GBP', '£0.00'],
  ])('%s %s is %s', (amount, currency, text) => {
    expect(money(amount, currency)).toBe(text)
  })
  it('leaves out cents when asked, and says nothing of nothing', () => {
    expect(money('1066.39', 'GBP', false)).toBe('£1,066')
    expect(money(null, 'GBP')).toBe('–')
    expect(percent(undefined)).toBe('–')
  })
  it('writes shares with a true minus', () => {
    expect(percent(-0.3059)).toBe('−31 %')
    expect(percent(0.1234, 1)).toBe('12.3 %')
  })
  it('says how many times over a limit, where a share says nothing any more', () => {
    expect(margin(0.2)).toBe('20 %')
    expect(margin(-0.9)).toBe('−90 %')
    expect(margin(-8)).toBe('9 times over')
    expect(margin(null)).toBe('–')
  })
  it.each([
    [9, '0:09'],
    [69, '1:09'],
    [3849, '1:04:09'],
    [36_000, '10:00:00'],
  ])('%d seconds are %s', (seconds, text) => {
    expect(clock(seconds)).toBe(text)
  })
  it('opens names up', () => expect(words('out_of_tolerance')).toBe('out of tolerance'))
  it.each([
    ['12 mm', 12],
    ['1.2 m', 1200],
    ['2 ft', 609.6],
    ['12 in', 304.8],
    ['3.5 cm', 35],
    ['12\u00a0mm', 12],
  ])('%s is %d mm', (text, value) => {
    expect(millimetres(text)).toBe(value)
  })
  it.each([[undefined], [''], ['12'], ['3 A'], ['long']])('%s is no length', (text) => {
    expect(millimetres(text)).toBeNull()
  })
})

describe('what is still to be worked', () => {
  it.each([
    [6.5, '2026-12-02', 0, '6.5', '2 Dec 2026', ''],
    [6.5, '2026-12-02', 1, '≥ 6.5', 'not before 2 Dec 2026', '1 open step says no hours'],
    [0, null, 3, '?', '–', '3 open steps say no hours'],
    [0, null, 0, '0', '–', ''],
  ])('%s h to %s with %s unsaid', (hours_left, date, steps_without_guide, hours, done, left) => {
    const forecast = { hours_left, date, steps_without_guide }
    expect([hoursLeft(forecast), dayDone(forecast), leftOut(forecast)]).toEqual([hours, done, left])
  })
})

describe('a table as CSV', () => {
  it('quotes what would break a row', () => {
    expect(csvText([['a', 'b,c', 'say "so"', 'two\nlines']])).toBe('a,"b,c","say ""so""","two\nlines"\r\n')
  })
  it('keeps a formula a text, and a negative number a number', () => {
    expect(csvText([['=1+1', '+x', '-x', '@x', -5, null, undefined]])).toBe("'=1+1,'+x,'-x,'@x,-5,,\r\n")
    expect(csvText([['\n=1+1', ' ＝1', '\u00a0+1', 'a=b']])).toBe("\"'\n=1+1\",' ＝1,'\u00a0+1,a=b\r\n")
  })
})

describe('short names', () => {
  it.each([
    ['Chamber fan', 'chamber-fan'],
    ['  É é 5 V! ', '5-v'],
    ['***', 'zone'],
    ['608', 'n608'],
    ['24 V', '24-v'],
    ['A'.repeat(80), 'a'.repeat(40)],
  ])('%s becomes %s', (text, ref) => {
    expect(refFrom(text, 'zone')).toBe(ref)
  })
  it('takes the first number that is free', () => {
    const taken = new Set(['heat-up', 'heat-up-2'])
    expect(freeRef('heat-up', (ref) => taken.has(ref))).toBe('heat-up-3')
    expect(freeRef('cool', (ref) => taken.has(ref))).toBe('cool')
  })
  it('goes on counting past what was deleted', () => {
    expect(nextRef('W', [{ ref: 'W1' }, { ref: 'W3' }])).toBe('W4')
    expect(nextRef('W', [{ ref: 'W1' }, { ref: 'W2' }])).toBe('W3')
    expect(nextRef('W', undefined)).toBe('W1')
  })
})

describe('the panel beside', () => {
  beforeEach(() => setActivePinia(createPinia()))
  it('goes back the way it came, and forgets it when closed', () => {
    const panel = usePanel()
    panel.show({ kind: 'part', ref: 'a' })
    panel.show({ kind: 'working', key: 'E02/W4' })
    panel.show({ kind: 'lead', ref: 'W4' })
    panel.back()
    expect(panel.open).toEqual({ kind: 'working', key: 'E02/W4' })
    panel.back()
    expect(panel.open).toEqual({ kind: 'part', ref: 'a' })
    panel.show({ kind: 'lead', ref: 'W4' })
    panel.close()
    panel.back()
    expect(panel.open).toBeNull()
  })
  it('does not remember the same thing twice', () => {
    const panel = usePanel()
    panel.show({ kind: 'part', ref: 'a' })
    panel.show({ kind: 'part', ref: 'a' })
    expect(panel.trail).toHaveLength(0)
  })
})

describe('findings of which only the changed are told', () => {
  const finding = (key: string, verdict: Verdict, margin: number | null = null) =>
    ({ key, verdict, margin }) as FindingSummary
  const held = [finding('E02/W4', 'danger', -0.2), finding('E05/psu', 'tight', 0.1), finding('E03/W4', 'holds', 0.4)]
  const keys = (since: number, changed: FindingSummary[], gone: string[] = []) =>
    withChanges(held, { since, changed, gone }).map((one) => one.key)

  it('puts a changed one where its verdict and margin belong', () => {
    expect(keys(1, [finding('E02/W4', 'holds', 0.5)])).toEqual(['E05/psu', 'E03/W4', 'E02/W4'])
    expect(keys(1, [finding('E03/W4', 'danger', -0.3)])).toEqual(['E03/W4', 'E02/W4', 'E05/psu'])
  })
  it('adds new ones, drops those that are gone, and keeps the order of keys among equals', () => {
    expect(keys(1, [finding('E01/bed', 'tight', 0.1)], ['E02/W4'])).toEqual(['E01/bed', 'E05/psu', 'E03/W4'])
  })
  it('leaves what it was given as it was', () => {
    keys(1, [], ['E02/W4'])
    expect(held).toHaveLength(3)
  })
})

describe('sizes to sort by', () => {
  it('reads lengths and gauges', () => {
    expect(inMetres('900 mm')).toBeCloseTo(0.9)
    expect(inMetres('3 ft')).toBeCloseTo(0.9144)
    expect(inMetres('x')).toBeNull()
    expect(inSquare('1.5 mm²')).toBe(1.5)
    // ASTM B258: 18 AWG is 0.823 mm².
    expect(inSquare('18 AWG')).toBeCloseTo(0.823, 3)
    expect(inSquare(undefined)).toBeNull()
  })
})

describe('walking a table by its arrows', () => {
  const rows = [['a1', 'a2', 'a3'], ['b1'], ['c1', 'c2', 'c3']]

  it('goes from row to row in the same place, and stops at the edges', () => {
    expect(nextStop(rows, 'a2', 'ArrowDown')).toBe('b1')
    expect(nextStop(rows, 'c3', 'ArrowUp')).toBe('b1')
    expect(nextStop(rows, 'a1', 'ArrowRight')).toBe('a2')
    expect(nextStop(rows, 'c2', 'ArrowLeft')).toBe('c1')
    expect(nextStop(rows, 'a3', 'ArrowRight')).toBeNull()
    expect(nextStop(rows, 'a1', 'ArrowUp')).toBeNull()
    expect(nextStop(rows, 'c3', 'ArrowDown')).toBeNull()
    expect([nextStop(rows, 'c2', 'Home'), nextStop(rows, 'c2', 'End')]).toEqual(['c1', 'c3'])
    expect(nextStop(rows, 'c2', 'Enter')).toBeNull()
    expect(nextStop(rows, 'elsewhere', 'ArrowDown')).toBeNull()
  })
})

describe('decimals in the manner of the person', () => {
  afterEach(() => writeComma(false))

  it('writes and reads a comma in figures, amounts and shares, and only when it is asked to', () => {
    expect([written('0.75 mm²'), money('1066.39', 'GBP'), percent(0.125, 1)]).toEqual([
      '0.75 mm²',
      '£1,066.39',
      '12.5 %',
    ])
    writeComma(true)
    expect([written('0.75 mm²'), money('1066.39', 'GBP'), percent(0.125, 1)]).toEqual([
      '0,75 mm²',
      '£1.066,39',
      '12,5 %',
    ])
    expect([asKept('0,75 mm²'), asKept('1,125 mm'), asKept('18 AWG')]).toEqual(['0.75 mm²', '1.125 mm', '18 AWG'])
  })

  it('leaves what is edited and the clauses of standards alone in what the server says', () => {
    writeComma(true)
    const answer = {
      headline: 'W4: 11.7\u00a0A through 1.5\u00a0mm², IEC 60204-1 §5.3 and §6.2',
      inputs: [{ label: 'Current', value: '11.7\u00a0A' }],
      document: { parts: [{ headline: '1.5\u00a0A', value: '1.5\u00a0A' }] },
      value: '1.5\u00a0A',
    }
    expect(told(answer)).toEqual({
      headline: 'W4: 11,7\u00a0A through 1,5\u00a0mm², IEC 60204-1 §5.3 and §6.2',
      inputs: [{ label: 'Current', value: '11,7\u00a0A' }],
      document: { parts: [{ headline: '1.5\u00a0A', value: '1.5\u00a0A' }] },
      value: '1.5\u00a0A',
    })
  })
})
