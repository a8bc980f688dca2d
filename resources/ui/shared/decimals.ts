/** Whether this browser writes decimals with a comma: read once, since every figure of a page is drawn by it. */
const kept = 'magpie.decimals'
const shelf = typeof localStorage === 'undefined' ? undefined : localStorage
let comma = shelf?.getItem(kept) === 'comma'

export const writesComma = () => comma

export function writeComma(on: boolean): void {
  shelf?.setItem(kept, on ? 'comma' : 'point')
  comma = on
}

/** A figure in the person's own manner: "0.75 mm²" → "0,75 mm²". */
export function written(text: string): string {
  return comma ? text.replace(/(\d)\.(\d)/g, '$1,$2') : text
}

/** The same figure as it is kept, however it was typed. */
export function asKept(text: string): string {
  return comma ? text.replace(/(\d),(\d)/g, '$1.$2') : text
}

/** An amount of money however its writer parts it; null where it could be two ("1,234") or is none. */
export function amountOf(text: string): string | null {
  const typed = text.replace(/\s/g, '')
  if (/^\d{1,9}(\.\d{1,2})?$/.test(typed)) return typed
  if (/^\d{1,9},\d{1,2}$/.test(typed)) return typed.replace(',', '.')
  if (/^\d{1,3}(\.\d{3})+,\d{1,2}$/.test(typed)) return typed.replaceAll('.', '').replace(',', '.')
  if (/^\d{1,3}(,\d{3})+\.\d{1,2}$/.test(typed)) return typed.replaceAll(',', '')

  return null
}

/** Sentences of the server, by the names they stand under; what is sent back again is not among them. */
const sentences = new Set([
  'headline',
  'says',
  'sentence',
  'substituted',
  'result',
  'otherwise',
  'why',
  'now',
  'key_specs',
  'forces',
  'blocked',
  'missing',
])
const quantities = new Set(['inputs', 'figures', 'cells'])

/**
 * What the server says, with the figures in its sentences written with a comma. A figure is a number that is bound to
 * its unit by a blank that does not break, so that a clause of a standard keeps its point.
 */
export function told<T>(answer: T): T {
  return comma ? (walk(answer, false) as T) : answer
}

function walk(held: unknown, inFigures: boolean, key = ''): unknown {
  if (typeof held === 'string') {
    return sentences.has(key) || (inFigures && key === 'value') ? held.replace(/(\d)\.(\d+)(?=\u00a0)/g, '$1,$2') : held
  }
  if (Array.isArray(held)) return held.map((one) => walk(one, inFigures, key))
  if (typeof held !== 'object' || held === null) return held

  return Object.fromEntries(
    Object.entries(held).map(([name, one]) =>
      // The build itself is what is edited: it stays as it is kept.
      name === 'document' || name === 'entries' || name === 'entry'
        ? [name, one]
        : [name, walk(one, inFigures || quantities.has(name), name)],
    ),
  )
}
