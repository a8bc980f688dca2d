import { onBeforeUnmount, onMounted, type Ref } from 'vue'

const reached = 'button:not([disabled]), a[href], input[type="checkbox"]'
const typed = 'input:not([type="checkbox"]), select, textarea'

const stopsOf = (within: Element) => [...within.querySelectorAll<HTMLElement>(reached)]
const isSeen = (stop: HTMLElement) => stop.offsetParent !== null

/** The stops of a table body that can be seen, row by row. */
function rowsOf(body: Element): HTMLElement[][] {
  return [...body.children].map((row) => stopsOf(row).filter(isSeen)).filter((row) => row.length > 0)
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
  let afterwards: ReturnType<typeof setTimeout> | undefined
  /** The one stop of each body that the tab key comes to. */
  const current = new WeakMap<Element, HTMLElement>()
  /** What has changed since it was last laid: rows of a body, or the whole of it. */
  let changed = new Set<Element>()

  function layBody(body: Element): void {
    if (body.children.length < 3) {
      // So few are walked by the tab key alone; perhaps there were more before.
      if (current.delete(body)) for (const stop of stopsOf(body)) stop.tabIndex = 0

      return
    }
    const held = current.get(body)
    const stops = stopsOf(body)
    const one = held !== undefined && stops.includes(held) && isSeen(held) ? held : stops.find(isSeen)
    if (one === undefined) return
    current.set(body, one)
    for (const stop of stops) stop.tabIndex = stop === one ? 0 : -1
  }
  /** A row of a body that is laid already: what is new in it is no stop of the tab key, unless that one is gone. */
  function layRow(row: Element, body: Element): void {
    const one = current.get(body)
    if (one === undefined || !body.contains(one)) {
      layBody(body)

      return
    }
    for (const stop of stopsOf(row)) stop.tabIndex = stop === one ? 0 : -1
  }
  function lay(): void {
    frame = 0
    const [now, all] = [changed, root.value !== null && changed.has(root.value)]
    changed = new Set()
    if (root.value === null) return
    // What is wider than the page is moved under it, by keys too.
    for (const table of all ? root.value.querySelectorAll<HTMLElement>('table.ledger') : []) {
      if (table.scrollWidth > table.clientWidth + 1) table.tabIndex = 0
    }
    if (all) {
      for (const body of root.value.querySelectorAll('tbody')) layBody(body)

      return
    }
    for (const one of now) {
      const body = one.closest('tbody')
      if (one === body) layBody(body)
      else if (body !== null && !now.has(body)) layRow(one, body)
    }
  }
  /** After what has changed is painted: nobody waits for it, and asking where things are costs nothing then. */
  const later = () => {
    if (frame === 0) frame = requestAnimationFrame(() => (afterwards = setTimeout(lay)))
  }
  /** Another width shows and hides columns. */
  const laidAnew = () => {
    if (root.value !== null) changed.add(root.value)
    later()
  }
  function noted(records: MutationRecord[]): void {
    for (const { target } of records) {
      const at = target as Element
      const body = at.closest('tbody')
      const row = body === null || at === body ? null : [...body.children].find((one) => one.contains(at))
      changed.add(row ?? body ?? root.value ?? at)
    }
    later()
  }

  function focused(event: FocusEvent): void {
    const stop = (event.target as HTMLElement).closest<HTMLElement>(reached)
    const body = stop?.closest('tbody')
    if (stop && body && current.get(body) !== stop && body.children.length > 2) {
      const before = current.get(body)
      if (before !== undefined) before.tabIndex = -1
      current.set(body, stop)
      stop.tabIndex = 0
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

  const watcher = new MutationObserver(noted)
  onMounted(() => {
    if (root.value === null) return
    root.value.addEventListener('focusin', focused)
    root.value.addEventListener('keydown', pressed)
    watcher.observe(root.value, { childList: true, subtree: true })
    window.addEventListener('resize', laidAnew)
    laidAnew()
  })
  onBeforeUnmount(() => {
    watcher.disconnect()
    window.removeEventListener('resize', laidAnew)
    cancelAnimationFrame(frame)
    clearTimeout(afterwards)
  })
}
