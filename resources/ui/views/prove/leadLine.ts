/** A lead as it is typed in one line: "psu.out > board.power 1.5mm2 400mm ferrules". */
export type LeadLine = {
  from: string
  to: string
  conductor?: { size: string; evidence: 'standard'; parallel?: number }
  length?: string
  route?: 'fixed' | 'flexing'
  protection?: string
  ends?: { termination: string }[]
}

const terminations: Record<string, string> = {
  ferrule: 'ferrule',
  ferrules: 'ferrule',
  fork: 'fork',
  forks: 'fork',
  ring: 'ring',
  rings: 'ring',
  crimp: 'crimp',
  crimps: 'crimp',
  soldered: 'soldered',
  moulded: 'moulded',
}
const lengths = /^(\d+(?:[.,]\d+)?)\s?(mm|cm|m|in|ft|")$/i
const metric = /^(\d+(?:[.,]\d+)?)\s?(?:mm2|mm²|sq|sqmm)$/i
const gauge = /^(?:awg\s?(\d+)|(\d+)\s?awg)$/i

/**
 * What a line says; a reason in words where it cannot be read. A size that is chosen is a decision: it stands as the
 * nominal one of its conductor.
 */
export function readLead(line: string): { lead: LeadLine } | { reason: string } {
  const [ends, ...beyond] = line.trim().split(/\s*(?:->|→|>)\s*/)
  if (ends === undefined || beyond.length !== 1 || beyond[0] === undefined) {
    return { reason: 'Write where it begins and where it ends: “psu.out > board.power 1.5mm2 400mm ferrules”.' }
  }
  // "1.5 mm2" and "18 AWG" are one word each.
  const words = beyond[0]
    .replace(/(\d)\s+(mm2|mm²|mm|cm|m|in|ft|awg)\b/gi, '$1$2')
    .replace(/\bawg\s+(\d)/gi, 'awg$1')
    .split(/\s+/)
  const [to, ...rest] = words
  const lead: LeadLine = { from: ends.trim(), to: to ?? '' }
  for (const port of [lead.from, lead.to]) {
    if (!/^[A-Za-z0-9][\w-]*\.[A-Za-z0-9][\w-]*$/.test(port)) {
      return { reason: `“${port}” is no port: write “part.port”, such as “psu.out”.` }
    }
  }
  let parallel: number | undefined
  for (let i = 0; i < rest.length; i++) {
    const word = rest[i]!
    const size = metric.exec(word)
    const number = gauge.exec(word)
    const length = lengths.exec(word)
    const many = /^(?:x|×)(\d+)$/.exec(word)
    if (size !== null) {
      lead.conductor = { size: `${size[1]!.replace(',', '.')} mm²`, evidence: 'standard' }
    } else if (number !== null) {
      lead.conductor = { size: `${number[1] ?? number[2]} AWG`, evidence: 'standard' }
    } else if (length !== null) {
      lead.length = `${length[1]!.replace(',', '.')} ${length[2] === '"' ? 'in' : length[2]!.toLowerCase()}`
    } else if (many !== null) {
      parallel = Number(many[1])
    } else if (word === 'fixed' || word === 'flexing') {
      lead.route = word
    } else if (word === 'moving') {
      lead.route = 'flexing'
    } else if (word === 'fuse' && rest[i + 1] !== undefined) {
      lead.protection = rest[++i]!
    } else if (terminations[word.toLowerCase()] !== undefined) {
      const termination = terminations[word.toLowerCase()]!
      lead.ends = lead.ends === undefined ? [{ termination }, { termination }] : [lead.ends[0]!, { termination }]
    } else {
      return { reason: `“${word}” is neither a size, a length, an end, “fixed”, “flexing”, “x2” nor “fuse F1”.` }
    }
  }
  if (parallel !== undefined) {
    if (lead.conductor === undefined) return { reason: `“x${parallel}” needs a size to be so many of.` }
    lead.conductor.parallel = parallel
  }

  return { lead }
}
