/** Hands a text to the browser as a file. */
export function saveText(name: string, text: string, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}

type Row = (string | number | null | undefined)[]

/** A table as CSV (RFC 4180); what a spreadsheet would take for a formula is kept as text. */
export function csvText(rows: Row[]): string {
  const cell = (value: Row[number]) => {
    const text = value === null || value === undefined ? '' : String(value)
    const safe = typeof value === 'string' && /^(?:[\t\r\n]|\s*[=+\-@＝＋－＠])/.test(text) ? `'${text}` : text

    return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
  }

  return rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('')
}

export function saveCsv(name: string, rows: Row[]): void {
  saveText(name, csvText(rows), 'text/csv;charset=utf-8')
}

/** A drawing that stands alone: what the page styles is written on it. */
export function saveSvg(name: string, drawing: SVGSVGElement, viewBox?: string): void {
  const copy = drawing.cloneNode(true) as SVGSVGElement
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  if (viewBox !== undefined) copy.setAttribute('viewBox', viewBox)
  const originals = drawing.querySelectorAll('*')
  copy.querySelectorAll('*').forEach((node, i) => {
    const style = getComputedStyle(originals[i]!)
    for (const key of [
      'fill',
      'stroke',
      'stroke-width',
      'stroke-dasharray',
      'font-family',
      'font-size',
      'font-weight',
    ] as const)
      (node as SVGElement).style.setProperty(key, style.getPropertyValue(key))
  })
  saveText(name, new XMLSerializer().serializeToString(copy), 'image/svg+xml')
}
