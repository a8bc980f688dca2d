import { describe, expect, it } from 'vitest'
import { termsIn } from './terms'

const term = (word: string) => ({ word, means: `${word} is.`, find: 'Look.' })
const terms = ['Holds', 'need', 'lead (a wire)', 'pitch', 'torque', 'holding torque', 'root diameter', 'AWG'].map(term)
const told = (text: string) => termsIn(text, terms).flatMap((piece) => (piece.term === undefined ? [] : [piece.term]))

describe('words of the trade in a text', () => {
  it.each([
    ['Holding torque at this speed', ['holding torque']],
    ['Torques, over the root-diameter', ['torque', 'root diameter']],
    ['torque and torque', ['torque']],
    ['20 awg', ['AWG']],
    // Words within words, verdicts, and words that a sentence needs anyway are left alone.
    ['the pitcher holds a need', []],
    ['lead (a wire)', []],
  ])('%s', (text, words) => {
    expect(told(text)).toEqual(words)
  })
  it('loses nothing of the text', () => {
    const text = 'Pitch × torque of the motor, per turn'
    expect(
      termsIn(text, terms)
        .map((piece) => piece.text)
        .join(''),
    ).toBe(text)
    expect(termsIn(text, [])).toEqual([{ text }])
  })
})
