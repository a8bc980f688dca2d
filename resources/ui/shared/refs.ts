/** A short name of what people call a thing: "Chamber fan" → "chamber-fan". */
export function refFrom(text: string, otherwise: string): string {
  const ref =
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 40) || otherwise

  // A name of digits only is read as "n608"; it is called so from the start.
  return /^\d+$/.test(ref) ? `n${ref}` : ref
}

/** The stem itself, or with the first number that makes it free: "heat-up", "heat-up-2". */
export function freeRef(stem: string, taken: (ref: string) => boolean): string {
  let free = stem
  for (let i = 2; taken(free); i++) {
    free = `${stem}-${i}`
  }

  return free
}

/** The next free of a numbered row: "W1", "W2". */
export function nextRef(letter: string, entries: { ref?: string }[] | undefined): string {
  const taken = new Set((entries ?? []).map((entry) => entry.ref))
  let number = taken.size + 1
  while (taken.has(`${letter}${number}`)) {
    number++
  }

  return `${letter}${number}`
}

/** A name nobody else has made; also where the page came over a line that is not secure. */
export function uuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6]! & 0x0f) | 0x40
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')

  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/**
 * The next free of a numbered row; where the others cannot be seen, a name that nobody on another device has given meanwhile.
 *
 * @param isAlone there is no network
 */
export function freshRef(letter: string, entries: { ref?: string }[] | undefined, isAlone: boolean): string {
  return isAlone || !navigator.onLine ? `${letter}-${uuid().slice(0, 6)}` : nextRef(letter, entries)
}

/** A list with one of it taken out, or put in where it was not; nothing where none is left, as a build is written. */
export function toggled<T>(list: T[] | undefined, one: T): T[] | null {
  const held = list ?? []
  const now = held.includes(one) ? held.filter((other) => other !== one) : [...held, one]

  return now.length > 0 ? now : null
}
