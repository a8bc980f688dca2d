import type { Family, Part } from '@/api/client'
import { saidOf } from './specs'
import { useEdit } from './useBuild'

export interface PortField {
  key: string
  title: string
  unit?: string
  options?: { value: string; title: string }[]
  flag?: boolean
}

const choices = (...all: string[]) => all.map((value) => ({ value, title: value }))
const yesNo = choices('yes', 'no')

/** What may be said of a port that carries power, of a channel of a board, and of an input. */
export const powerFields: PortField[] = [
  { key: 'voltage', title: 'voltage', unit: 'V' },
  { key: 'rated_current', title: 'rated current', unit: 'A' },
  { key: 'contact_rating', title: 'contact rating', unit: 'A' },
  { key: 'fuse_rating', title: 'fuse', unit: 'A' },
  { key: 'limits_at', title: 'limits itself to', unit: 'A' },
]
export const channelFields: PortField[] = [
  {
    key: 'use',
    title: 'use',
    options: choices('motor', 'heater', 'fan', 'light', 'thermistor', 'switch', 'probe', 'signal'),
  },
  { key: 'pin', title: 'pin' },
  { key: 'bank', title: 'selector' },
  { key: 'control', title: 'switched', options: choices('always on', 'switched', 'speed') },
  { key: 'support', title: 'usable', options: choices('today', 'with other firmware', 'promised') },
  { key: 'reserved', title: 'keep free', options: yesNo, flag: true },
]
export const signalFields: PortField[] = [
  { key: 'voltage', title: 'level', unit: 'V' },
  { key: 'rated_current', title: 'gives', unit: 'mA' },
  { key: 'max_voltage', title: 'stands', unit: 'V' },
  { key: 'pull_up', title: 'pull-up', options: yesNo, flag: true },
  { key: 'pull_down', title: 'pull-down', options: yesNo, flag: true },
  { key: 'input', title: 'protection', options: choices('none', 'protected', 'isolated') },
]

/** The ports a part has of its family: "circuit", and "circuit-2" and so on where its sheet counts several. */
export function familyPorts(family: Family | undefined, part: Part | undefined): Family['ports'] {
  const spec = family?.counted_by ? part?.specs?.[family.counted_by] : undefined
  const count = Math.min(64, Number(saidOf(spec) ?? 1) || 1)
  const again = (number: number) => (family?.ports ?? []).map((port) => ({ ...port, name: `${port.name}-${number}` }))

  return [...(family?.ports ?? []), ...Array.from({ length: Math.max(0, count - 1) }, (_, i) => again(i + 2)).flat()]
}

/** Reads and stores what is said of the ports of a part. */
export function usePortSpecs() {
  const { set } = useEdit()
  const at = (part: Part, port: string) => (part.ports ?? []).findIndex((one) => one.name === port)

  function valueOf(part: Part, port: string, key: string): string | undefined {
    return saidOf(part.ports?.[at(part, port)]?.specs?.[key])
  }

  const store = (part: Part, port: string, field: PortField) => (text: string, was: unknown) => {
    const label = `${field.title} of port ${port} of ${part.name}`
    const index = at(part, port)
    const value = field.flag ? text === 'yes' : text
    const spec = { value, evidence: 'datasheet' }
    if (index < 0)
      return set(label, 'parts', part.ref, ['ports'], part.ports ?? null, [
        ...(part.ports ?? []),
        { name: port, specs: { [field.key]: spec } },
      ])
    const path = ['ports', index, 'specs', field.key]
    if (was === null) return set(label, 'parts', part.ref, path, null, spec)

    return text === ''
      ? set(label, 'parts', part.ref, path, part.ports?.[index]?.specs?.[field.key] ?? null, null)
      : set(label, 'parts', part.ref, [...path, 'value'], field.flag ? was === 'yes' : was, value)
  }

  return { valueOf, store }
}
