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
