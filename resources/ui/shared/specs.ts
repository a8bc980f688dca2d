import type { FullSpec } from '@/api/client'

/** A value of a sheet, which a file holds in short or with what it rests on: in full. */
export function inFull(spec: unknown): FullSpec | undefined {
  return spec === undefined || spec === null
    ? undefined
    : typeof spec === 'object'
      ? (spec as FullSpec)
      : { value: spec as string | boolean }
}

/** What it says, in words; undefined where nothing is said. */
export function saidOf(spec: unknown): string | undefined {
  const value = inFull(spec)?.value

  return value === undefined ? undefined : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
}
