import { onBeforeUnmount, onMounted, type Ref } from 'vue'

const reached = 'button:not([disabled]), a[href], input[type="checkbox"]'
const typed = 'input:not([type="checkbox"]), select, textarea'

/** The stops of a table body, row by row. */
function rowsOf(body: Element): HTMLElement[][] {
  return [...body.children]
    .map((row) => [...row.querySelectorAll<HTMLElement>(reached)].filter((stop) => stop.offsetParent !== null))
    .filter((row) => row.length > 0)
}

/** Where an arrow leads from one stop of a table to another; null at its edges and for other keys. */
export function nextStop<T>(rows: T[][], from: T, key: string): T | null {
  const at = rows.findIndex((row) => row.includes(from))
  if (at < 0) return null
  const row = rows[at]!
  const place = row.indexOf(from)
  const other = (to: T[] | undefined) => (to === undefined ? null : to[Math.min(place, to.length - 1)]!)

  switch (key) {
    case 'ArrowDown':
      return other(rows[at + 1])
    case 'ArrowUp':
      return other(rows[at - 1])
    case 'ArrowRight':
      return row[place + 1] ?? null
    case 'ArrowLeft':
      return row[place - 1] ?? null
    case 'Home':
      return row[0]!
    case 'End':
      return row.at(-1)!
    default:
      return null
  }
}

/**
 * Tables of many rows are one stop of the tab key: it enters where one was last, the arrows walk from there, and the
 * next tab leaves. What is typed into stays a stop of its own.
 */
export function useRoving(root: Ref<HTMLElement | null>): void {
  let frame = 0
  const last = new WeakMap<Element, HTMLElement>()

  function lay(): void {
    frame = 0
    // What is wider than the page is moved under it, by keys too.
    for (const table of root.value?.querySelectorAll<HTMLElement>('table.ledger') ?? []) {
      if (table.scrollWidth > table.clientWidth + 1) table.tabIndex = 0
    }
    for (const body of root.value?.querySelectorAll('tbody') ?? []) {
      const rows = rowsOf(body)
      if (rows.length < 3) continue
      const stops = rows.flat()
      const held = last.get(body)
      const current = held !== undefined && stops.includes(held) ? held : stops[0]!
      for (const stop of stops) stop.tabIndex = stop === current ? 0 : -1
    }
  }
  const later = () => {
    if (frame === 0) frame = requestAnimationFrame(lay)
  }

  function focused(event: FocusEvent): void {
    const stop = (event.target as HTMLElement).closest<HTMLElement>(reached)
    const body = stop?.closest('tbody')
    if (stop && body) {
      last.set(body, stop)
      later()
    }
  }
  function pressed(event: KeyboardEvent): void {
    const target = event.target as HTMLElement
    const body = target.closest('tbody')
    if (body === null || target.matches(typed) || event.ctrlKey || event.metaKey || event.altKey) return
    const to = nextStop(rowsOf(body), target, event.key)
    if (to !== null) {
      event.preventDefault()
      to.focus()
      to.scrollIntoView({ block: 'nearest' })
    }
  }

  const watcher = new MutationObserver(later)
  onMounted(() => {
    if (root.value === null) return
    root.value.addEventListener('focusin', focused)
    root.value.addEventListener('keydown', pressed)
    watcher.observe(root.value, { childList: true, subtree: true })
    later()
  })
  onBeforeUnmount(() => {
    watcher.disconnect()
    cancelAnimationFrame(frame)
  })
}
