import type { Catalogue } from '@/api/client'

export type Piece = { text: string; term?: string }
type Terms = Catalogue['terms']

/** One pattern for all words of the trade, kept while the catalogue is the same one. */
const patterns = new WeakMap<Terms, RegExp>()

/** Words too common in a sentence to be the trade's there: "for a need", "at rail" stand for more than one thing. */
const common = new Set(['need', 'working', 'slow', 'spare', 'evidence', 'measured', 'assumed', 'manual'])

function patternOf(terms: Terms): RegExp {
  const held = patterns.get(terms)
  if (held !== undefined) return held
  const words = terms
    .map((one) => one.word)
    .filter((word) => !common.has(word) && !word.includes('(') && !/^[A-Z][a-z]/.test(word))
    .sort((a, b) => b.length - a.length)
    .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/[ -]/g, '[ -]'))
  const made = new RegExp(`(?<![\\p{L}\\d-])(${words.join('|')})(?=s?(?![\\p{L}\\d-]))`, 'giu')
  patterns.set(terms, made)

  return made
}

/** A text cut where a word of the trade stands in it, each word told once. */
export function termsIn(text: string, terms: Terms): Piece[] {
  if (terms.length === 0) return [{ text }]
  const pieces: Piece[] = []
  const seen = new Set<string>()
  let from = 0
  for (const found of text.matchAll(patternOf(terms))) {
    const word = found[0].toLowerCase().replace(/[ -]/g, ' ')
    const term = terms.find((one) => one.word.toLowerCase().replace(/[ -]/g, ' ') === word)
    if (term === undefined || seen.has(word)) continue
    seen.add(word)
    if (found.index > from) pieces.push({ text: text.slice(from, found.index) })
    pieces.push({ text: found[0], term: term.word })
    from = found.index + found[0].length
  }
  if (from < text.length) pieces.push({ text: text.slice(from) })

  return pieces
}
