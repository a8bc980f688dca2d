/**
 * What is being typed survives a reload of the page: each field of a form, and each field of several lines, is kept in this tab while it
 * is typed in, and put back when the same field is gone into again. It is forgotten when the field is gone because it was stored or left.
 */
const PREFIX = 'magpie.draft:'

type Field = HTMLInputElement | HTMLTextAreaElement

const shelf = (): Storage | undefined => (typeof sessionStorage === 'undefined' ? undefined : sessionStorage)

/** Where a field stands, so that it is known again: the address, and what the field is called. Null for what is never kept. */
export function keyOf(field: Field, path: string): string | null {
  const isText =
    field instanceof HTMLTextAreaElement ||
    (['text', 'search', ''].includes(field.type) && field.closest('form, [role="dialog"]') !== null)
  const name = field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent?.trim() ?? field.name
  const isSecret = field.autocomplete !== undefined && /password|one-time-code|username/.test(field.autocomplete)

  // The same field beside another part is another field: what heads it is part of its name.
  const head = field
    .closest('aside, [role="dialog"], section, article, main')
    ?.querySelector('h1, h2, h3')
    ?.textContent?.trim()

  return isText && !isSecret && !field.readOnly && name !== ''
    ? `${PREFIX}${path}:${head ? `${head}, ` : ''}${name}`
    : null
}

/** The names of fields something is kept of at an address. */
export function keptAt(path: string, held = shelf()): string[] {
  const begin = `${PREFIX}${path}:`

  return Object.keys(held ?? {})
    .filter((key) => key.startsWith(begin))
    .map((key) => key.slice(begin.length))
}

export function forgetAt(path: string, held = shelf()): void {
  keptAt(path, held).forEach((name) => held?.removeItem(`${PREFIX}${path}:${name}`))
}

function asField(target: EventTarget | null): Field | null {
  return target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement ? target : null
}

/** Watches the page from now on. */
export function keepDrafts(root: Document = document): void {
  const held = shelf()
  if (held === undefined) return
  // Only what stood here before this page was loaded is put back, and once: what is typed now is its form's own.
  const before = new Map(Object.entries({ ...held }).filter(([key]) => key.startsWith(PREFIX)) as [string, string][])
  const watched = new Map<Field, string>()
  const path = () => location.pathname
  root.addEventListener('input', (event) => {
    const field = asField(event.target)
    const key = field && keyOf(field, path())
    if (!field || key === null) return
    watched.set(field, key)
    try {
      if (field.value === '') held.removeItem(key)
      else held.setItem(key, field.value)
    } catch {
      // A tab that keeps nothing more loses no more than it always did.
    }
  })
  root.addEventListener('focusin', (event) => {
    const field = asField(event.target)
    const key = field && keyOf(field, path())
    const text = key === null ? undefined : before.get(key)
    if (!field || key === null || text === undefined) return
    before.delete(key)
    if (text === field.value) return
    watched.set(field, key)
    field.value = text
    field.dispatchEvent(new Event('input', { bubbles: true }))
  })
  // A field that is gone while the page stays was stored or left; a reload takes the page away first.
  new MutationObserver(() => {
    for (const [field, key] of watched) {
      if (!field.isConnected) {
        watched.delete(field)
        held.removeItem(key)
      } else if (field.value === '') {
        held.removeItem(key)
      }
    }
  }).observe(root.body, { childList: true, subtree: true })
}
