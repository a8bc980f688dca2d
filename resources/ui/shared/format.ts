import { writesComma, written } from './decimals'

const symbols: Record<string, string> = { GBP: '£', EUR: '€', USD: '$' }

/** An amount as people write it: "£1,066.39". */
export function money(amount: string | null | undefined, currency: string, cents = true): string {
  if (amount === null || amount === undefined) {
    return '–'
  }
  const [whole = '0', part] = amount.replace('-', '').split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, writesComma() ? '.' : ',')
  const sign = amount.startsWith('-') ? '−' : ''

  return `${sign}${symbols[currency] ?? `${currency} `}${grouped}${cents && part !== undefined ? `${writesComma() ? ',' : '.'}${part}` : ''}`
}

export function percent(share: number | null | undefined, places = 0): string {
  return share === null || share === undefined ? '–' : `${written((share * 100).toFixed(places)).replace('-', '−')} %`
}

/** What is left of a limit; past it by more than the whole of it, how many times over. */
export function margin(share: number | null | undefined, places = 0): string {
  return share === null || share === undefined || share >= -1
    ? percent(share, places)
    : `${Math.round(1 - share)} times over`
}

export function day(iso: string | null | undefined): string {
  return iso === null || iso === undefined
    ? '–'
    : new Date(`${iso.slice(0, 10)}T12:00:00`).toLocaleDateString('en-GB', {
        day: 'numeric',
        month: 'short',
        year: 'numeric',
      })
}

export function moment(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
}

/** Seconds as a clock: "1:04:09". */
export function clock(seconds: number): string {
  const two = (n: number) => String(n).padStart(2, '0')
  const hours = Math.floor(seconds / 3600)

  return `${hours > 0 ? `${hours}:` : ''}${hours > 0 ? two(Math.floor(seconds / 60) % 60) : Math.floor(seconds / 60)}:${two(Math.floor(seconds) % 60)}`
}

/** "out_of_tolerance" → "out of tolerance". */
export function words(key: string): string {
  return key.replaceAll('_', ' ')
}

/** A whole number as it is kept; what is none stays as it was typed, for the server to name what is wrong with it. */
export function whole(text: string): number | string {
  return /^\d+$/.test(text) ? Number(text) : text
}

/** A bare number with the unit its field takes; what has a unit of its own keeps it. */
export function inUnit(text: string, unit: string): string {
  return /^[\d.,]+$/.test(text.trim()) ? `${text.trim()} ${unit}` : text
}

export function today(): string {
  const now = new Date()

  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`
}

/** A length as the builder wrote it, in millimetres; null when there is none. */
export function millimetres(text: string | undefined): number | null {
  const match = /^([\d.]+)\s*(mm|cm|m|in|ft)$/.exec((text ?? '').replaceAll('\u00a0', ' '))

  return match === null
    ? null
    : Math.round(Number(match[1]) * ({ mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 }[match[2]!] ?? 1) * 10) / 10
}

const metres: Record<string, number> = { µm: 1e-6, mm: 0.001, cm: 0.01, m: 1, in: 0.0254, '"': 0.0254, ft: 0.3048 }

/** A length as it is kept, "900 mm", in metres; null when it is none. For sorting only: the core computes. */
export function inMetres(text: string | undefined): number | null {
  const read = /^([+−-]?[\d.]+)\s*(µm|mm|cm|m|in|"|ft)$/.exec(text ?? '')

  return read === null ? null : Number(read[1]!.replace('−', '-')) * metres[read[2]!]!
}

/** A conductor's size, "0.75 mm²" or "18 AWG", in mm²; null when it is none. For sorting only. */
export function inSquare(text: string | undefined): number | null {
  const area = /^([\d.]+)\s*mm²$/.exec(text ?? '')
  const gauge = /^(\d+)\s*AWG$/.exec(text ?? '')

  return area !== null
    ? Number(area[1])
    : gauge !== null
      ? (Math.PI / 4) * (0.127 * 92 ** ((36 - Number(gauge[1])) / 39)) ** 2
      : null
}

/** The day of a moment in seconds since 1970: "5 Nov 2026". */
export function onDay(unix: number | null | undefined): string {
  return unix === null || unix === undefined
    ? ''
    : new Date(unix * 1000).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}

/** Its day and time: "5 Nov 2026, 19:04". */
export function atTime(unix: number | null | undefined): string {
  return unix === null || unix === undefined
    ? ''
    : `${onDay(unix)}, ${new Date(unix * 1000).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`
}
