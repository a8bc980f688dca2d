import { computed } from 'vue'
import type { Overview } from '@/api/client'
import { useBuild } from '@/shared/useBuild'

/** Views of one group stand together in the second row; the other group is one step away. */
export interface View {
  key: string
  title: string
  path: string
  group?: string
}
export interface Stage {
  key: keyof Overview['waiting'] | 'run'
  title: string
  about: string
  views: View[]
}

const group = (name: string, titles: string[]): View[] =>
  titles.map((title) => ({ key: title.toLowerCase(), title, path: `prove/${title.toLowerCase()}`, group: name }))

/** The work in the order people do it. */
export const stages: Stage[] = [
  {
    key: 'scope',
    title: 'Scope',
    about: 'What it must make, where it will stand, and which route to take.',
    views: [
      { key: 'brief', title: 'Brief', path: 'scope/brief' },
      { key: 'routes', title: 'Routes', path: 'scope/routes' },
      { key: 'variants', title: 'Variants', path: 'scope/variants' },
    ],
  },
  {
    key: 'choose',
    title: 'Choose',
    about: 'The part for each need.',
    views: [
      { key: 'parts', title: 'Parts', path: 'choose/parts' },
      { key: 'compare', title: 'Compare', path: 'choose/compare' },
      { key: 'decisions', title: 'Decisions', path: 'choose/decisions' },
      { key: 'measure', title: 'Measure first', path: 'choose/measure' },
      { key: 'library', title: 'Library', path: 'choose/library' },
      { key: 'import', title: 'Bring a list', path: 'choose/import' },
    ],
  },
  {
    key: 'prove',
    title: 'Prove',
    about: 'Will it burn, brown out, stall or sag.',
    views: [
      { key: 'fit', title: 'Fit', path: 'prove/fit' },
      ...group('Electrics', ['Wiring', 'Leads', 'Harness', 'Power', 'Ports', 'Stops', 'Settings']),
      ...group('Mechanics', ['Picture', 'Motion', 'Stack-up', 'Joints', 'Heat', 'Place']),
    ],
  },
  {
    key: 'buy',
    title: 'Buy',
    about: 'What to order, where and by when, what came, and what it costs.',
    views: [
      { key: 'basket', title: 'To order', path: 'buy/basket' },
      { key: 'split', title: 'Where', path: 'buy/split' },
      { key: 'orders', title: 'Orders', path: 'buy/orders' },
      { key: 'arrivals', title: 'Arrivals', path: 'buy/arrivals' },
      { key: 'prints', title: 'Prints', path: 'buy/prints' },
      { key: 'dates', title: 'Dates', path: 'buy/dates' },
      { key: 'money', title: 'Money', path: 'buy/money' },
    ],
  },
  {
    key: 'build',
    title: 'Build',
    about: 'What next, and what went wrong.',
    views: [
      { key: 'bench', title: 'Bench', path: 'build/bench', group: 'At work' },
      { key: 'tonight', title: 'Tonight', path: 'build/tonight', group: 'At work' },
      { key: 'faults', title: 'Faults', path: 'build/faults', group: 'At work' },
      { key: 'ahead', title: 'Look ahead', path: 'build/ahead', group: 'Laying out' },
      { key: 'documents', title: 'Documents', path: 'build/documents', group: 'Laying out' },
      { key: 'bags', title: 'Bags', path: 'build/bags', group: 'Laying out' },
      { key: 'hours', title: 'Hours', path: 'build/hours', group: 'At work' },
      { key: 'open', title: 'Open items', path: 'build/open', group: 'At work' },
    ],
  },
  {
    key: 'run',
    title: 'Run',
    about: 'Power-up, alignment, tuning, sign-off and upkeep.',
    views: [
      { key: 'ladder', title: 'Power-up', path: 'run/ladder' },
      { key: 'readings', title: 'Readings', path: 'run/readings' },
      { key: 'straight', title: 'Straight', path: 'run/straight' },
      { key: 'tune', title: 'Tune', path: 'run/tune' },
      { key: 'jobs', title: 'Jobs', path: 'run/jobs' },
      { key: 'upkeep', title: 'Upkeep', path: 'run/upkeep' },
      { key: 'book', title: 'Book', path: 'run/book' },
    ],
  },
]

/** Views about money alone: a link that shows no prices does not show them. */
const priced = ['routes', 'basket', 'split', 'orders', 'money']

/** The stages with the views that whoever looks can open. */
export function useStages() {
  const { overview } = useBuild()

  return computed(() =>
    overview.value?.money === null
      ? stages.map((stage) => ({ ...stage, views: stage.views.filter((view) => !priced.includes(view.key)) }))
      : stages,
  )
}
