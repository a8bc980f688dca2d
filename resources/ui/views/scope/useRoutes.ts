import type { RouteColumn } from '@/api/client'

/** What a route is paid for, in the order of its bar. */
export const costParts = [
  { key: 'box', title: 'The box' },
  { key: 'parts', title: 'Parts of the build' },
  { key: 'left out', title: 'What the box leaves out' },
  { key: 'tool', title: 'Tools' },
  { key: 'consumable', title: 'Used up' },
  { key: 'spare', title: 'Spares' },
  { key: 'toll', title: 'Shipping, duty, tax, fees' },
] as const

export function amountOf(route: RouteColumn, key: string): string {
  return key === 'toll' ? route.toll : (route.kinds[key] ?? '0.00')
}
