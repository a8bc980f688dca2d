import { computed, ref, type ComputedRef, type Ref } from 'vue'
import { reasonOf, type Change, type Path } from '@/api/client'
import { useEdit } from './useBuild'
import { useNotices } from './useNotices'

/** A column of a table whose rows are worked on many at once. */
export interface ManyColumn<Row> {
  key: string
  title: string
  /** As it is shown, copied and sorted. */
  text: (row: Row) => string
  /** Where it is kept; a column without a path cannot be changed here. */
  path?: Path
  /** The value of a text; null empties it. */
  value?: (text: string) => unknown
  /** What it was, as it is kept. */
  was?: (row: Row) => unknown
  /** What else is set with it, in the same edit. */
  with?: (row: Row) => { path: Path; was: unknown; to: unknown }[]
  options?: { value: string; title: string }[]
  /** What it is sorted by, where its text does not sort by itself; null stands last. */
  order?: (row: Row) => number | null
}

interface Many<Row> {
  /** Under this name the shown columns are kept in this browser. */
  name: string
  section: string
  one: string
  many: string
  rows: ComputedRef<Row[]> | Ref<Row[]>
  refOf: (row: Row) => string
  columns: () => ManyColumn<Row>[]
  /** Columns that show only when they are asked for. */
  hides?: string[]
  /** What goes when rows go, where that is more than they. */
  removes?: (rows: Row[]) => Change[]
  /** Of a row that is kept nowhere yet, what is created of what was set in it; null where that is not enough. */
  makes?: (row: Row, set: { path: Path; to: unknown }[]) => Change | null
  /** Told before the changes of an act are worked out. */
  begin?: () => void
  /** Whether a row is kept nowhere yet. */
  isNew?: (row: Row) => boolean
}

/** Cells of a spreadsheet: rows by line, columns by tab; a quoted cell may hold either. */
export function cells(text: string): string[][] {
  const rows: string[][] = [['']]
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const row = rows[rows.length - 1]!
    const sign = text[i]!
    if (quoted) {
      if (sign === '"' && text[i + 1] === '"') row[row.length - 1] += text[++i]!
      else if (sign === '"') quoted = false
      else row[row.length - 1] += sign
    } else if (sign === '"' && row[row.length - 1] === '') quoted = true
    else if (sign === '\t') row.push('')
    else if (sign === '\n') rows.push([''])
    else if (sign !== '\r') row[row.length - 1] += sign
  }

  return rows.map((row) => row.map((cell) => cell.trim())).filter((row) => row.some((cell) => cell !== ''))
}

/** Rows as a spreadsheet takes them; what holds a tab, a line end or a quotation mark is quoted. */
export function tabbed(rows: string[][]): string {
  const cell = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)

  return rows.map((row) => row.map(cell).join('\t')).join('\n')
}

/** Selecting, sorting, copying, pasting, setting and deleting many rows; each act is one edit and one undo. */
export function useMany<Row>(options: Many<Row>) {
  const { edit } = useEdit()
  const notices = useNotices()
  const picked = ref(new Set<string>())
  const sort = ref<{ key: string; down: boolean } | null>(null)
  const reason = ref('')
  const busy = ref(false)
  const kept = `magpie.columns.${options.name}`
  const hidden = ref(new Set<string>(readKept(kept) ?? options.hides))
  let last = ''

  const order = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })
  const sorted = computed(() => {
    const by = sort.value
    const column = by === null ? undefined : options.columns().find((one) => one.key === by.key)
    if (by === null || column === undefined) return options.rows.value

    return [...options.rows.value].sort((a, b) => {
      if (column.order !== undefined) {
        const [left, right] = [column.order(a), column.order(b)]
        if (left === null || right === null) return left === right ? 0 : left === null ? 1 : -1

        return (by.down ? -1 : 1) * (left - right)
      }
      const [left, right] = [column.text(a), column.text(b)]
      // What is empty stands last, whichever way.
      if (left === '' || right === '') return left === right ? 0 : left === '' ? 1 : -1

      return (by.down ? -1 : 1) * order.compare(left, right)
    })
  })
  const rowsPicked = computed(() => sorted.value.filter((row) => picked.value.has(options.refOf(row))))
  const shows = (key: string) => !hidden.value.has(key)

  function sortBy(key: string): void {
    sort.value = sort.value?.key !== key ? { key, down: false } : sort.value.down ? null : { key, down: true }
  }
  const sortedBy = (key: string): 'ascending' | 'descending' | 'none' =>
    sort.value?.key !== key ? 'none' : sort.value.down ? 'descending' : 'ascending'

  function show(key: string, shown: boolean): void {
    const next = new Set(hidden.value)
    if (shown) next.delete(key)
    else next.add(key)
    hidden.value = next
    try {
      localStorage.setItem(kept, JSON.stringify([...next]))
    } catch {
      // Where nothing may be kept, the choice lasts as long as the page.
    }
  }

  /** Picks or drops a row; with shift all from the last one to it. */
  function pick(row: Row, through = false): void {
    const ref = options.refOf(row)
    const on = !picked.value.has(ref)
    const refs = sorted.value.map(options.refOf)
    const [from, to] = [refs.indexOf(last), refs.indexOf(ref)]
    const range = through && from >= 0 ? refs.slice(Math.min(from, to), Math.max(from, to) + 1) : [ref]
    const next = new Set(picked.value)
    range.forEach((one) => (on ? next.add(one) : next.delete(one)))
    picked.value = next
    last = ref
  }
  function pickAll(on: boolean): void {
    picked.value = new Set(on ? sorted.value.map(options.refOf) : [])
  }

  async function act(label: string, changes: Change[], done: string): Promise<boolean> {
    reason.value = ''
    if (changes.length === 0) {
      notices.say('Nothing is different.')

      return true
    }
    busy.value = true
    try {
      await edit(label, changes)
      notices.say(`${done}; Undo brings it all back.`)

      return true
    } catch (error) {
      reason.value = reasonOf(error)

      return false
    } finally {
      busy.value = false
    }
  }
  const counted = (count: number) => `${count} ${count === 1 ? options.one : options.many}`

  function changed(row: Row, wanted: { column: ManyColumn<Row>; text: string }[]): Change | null {
    const set = wanted
      .filter(({ column, text }) => column.path !== undefined && text !== column.text(row))
      .flatMap(({ column, text }) => [
        {
          path: column.path!,
          was: (column.was === undefined ? column.text(row) || null : (column.was(row) ?? null)) as never,
          to: (text === '' ? null : column.value === undefined ? text : column.value(text)) as never,
        },
        ...(text === '' ? [] : ((column.with?.(row) ?? []) as { path: Path; was: never; to: never }[])),
      ])

    if (set.length > 0 && options.isNew?.(row) === true) return options.makes?.(row, set) ?? null

    return set.length === 0 ? null : { section: options.section, ref: options.refOf(row), set }
  }

  /** One column of all picked rows. */
  async function setAll(key: string, text: string): Promise<void> {
    const column = options.columns().find((one) => one.key === key)
    if (column === undefined) return
    options.begin?.()
    const changes = rowsPicked.value
      .map((row) => changed(row, [{ column, text: text.trim() }]))
      .filter((one) => one !== null)
    await act(
      `${column.title} of ${counted(changes.length)}`,
      changes,
      `${column.title} is set in ${counted(changes.length)}`,
    )
  }

  async function removeAll(): Promise<void> {
    const rows = rowsPicked.value.filter((row) => options.isNew?.(row) !== true)
    const changes =
      options.removes?.(rows) ??
      rows.map((row) => ({ section: options.section, ref: options.refOf(row), delete: true as const }))
    if (
      await act(
        `Delete ${counted(rows.length)}`,
        changes,
        `${counted(rows.length)} ${rows.length === 1 ? 'is' : 'are'} gone`,
      )
    ) {
      picked.value = new Set()
    }
  }

  /** The picked rows, or all, with their headings, for a spreadsheet. */
  function copied(): string {
    const columns = options.columns().filter((column) => shows(column.key))
    const rows = rowsPicked.value.length > 0 ? rowsPicked.value : sorted.value

    return tabbed([
      columns.map((column) => column.title),
      ...rows.map((row) => columns.map((column) => column.text(row))),
    ])
  }
  async function copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(copied())
      notices.say(`${counted(rowsPicked.value.length || sorted.value.length)} copied, with headings.`)
      reason.value = ''
    } catch {
      reason.value = 'This browser does not let the page copy; export a CSV instead.'
    }
  }

  /** Cells of a spreadsheet into the rows they name; the first column that is copied is their name. */
  async function paste(text: string): Promise<boolean> {
    const [head, ...lines] = cells(text)
    const columns = options.columns()
    const named = (head ?? []).map((title) =>
      columns.find((column) => column.title.toLowerCase() === title.toLowerCase()),
    )
    const at = named.findIndex((column) => column?.key === 'ref')
    if (at < 0) {
      reason.value = `The first line must be headings, one of them “${columns.find((one) => one.key === 'ref')?.title}”: copy first, change the cells, and paste them back.`

      return false
    }
    const unknown = (head ?? []).filter((title, i) => title !== '' && named[i] === undefined)
    if (unknown.length > 0) {
      reason.value = `There is no column “${unknown.join('”, “')}” here.`

      return false
    }
    options.begin?.()
    const byRef = new Map(options.rows.value.map((row) => [options.refOf(row), row]))
    const changes: Change[] = []
    for (const [i, line] of lines.entries()) {
      const row = byRef.get(line[at] ?? '')
      if (row === undefined) {
        reason.value = `Line ${i + 2}: there is no ${options.one} “${line[at] ?? ''}”.`

        return false
      }
      const change = changed(
        row,
        named.flatMap((column, c) =>
          column === undefined || line[c] === undefined ? [] : [{ column, text: line[c]! }],
        ),
      )
      if (change !== null) changes.push(change)
    }

    return act(`Paste into ${counted(changes.length)}`, changes, `${counted(changes.length)} changed`)
  }

  return {
    /** What its rows are called, many of them. */
    called: options.many,
    isPicked: (row: Row) => picked.value.has(options.refOf(row)),
    picked,
    rowsPicked,
    sorted,
    sortBy,
    sortedBy,
    shows,
    /** Columns that are put away. */
    hidden,
    show,
    pick,
    pickAll,
    setAll,
    removeAll,
    copy,
    copied,
    paste,
    reason,
    busy,
    columns: options.columns,
    counted,
  }
}

function readKept(name: string): string[] | null {
  try {
    const held: unknown = JSON.parse(localStorage.getItem(name) ?? 'null')

    return Array.isArray(held) ? held.filter((one) => typeof one === 'string') : null
  } catch {
    return null
  }
}
