import { defineStore } from 'pinia'
import { ref } from 'vue'

type Panel =
  | { kind: 'working'; key: string }
  /** `wire`: with the leads it wants laid out at once. */
  | { kind: 'part'; ref: string; wire?: boolean }
  | { kind: 'lead'; ref: string }
  | { kind: 'fault'; ref: string }
  | { kind: 'step'; ref: string }
  | { kind: 'joint'; ref: string }
  | { kind: 'decision'; ref: string }
  | { kind: 'library'; id: number }
  | { kind: 'term'; word: string }
  | { kind: 'history' }

/** What stands in the right third beside the view; the one before it can be gone back to. */
export const usePanel = defineStore('panel', () => {
  const open = ref<Panel | null>(null)
  const trail = ref<Panel[]>([])

  function show(panel: Panel): void {
    if (open.value !== null && JSON.stringify(open.value) !== JSON.stringify(panel)) {
      trail.value = [...trail.value.slice(-9), open.value]
    }
    open.value = panel
  }

  function back(): void {
    open.value = trail.value.at(-1) ?? null
    trail.value = trail.value.slice(0, -1)
  }

  function close(): void {
    open.value = null
    trail.value = []
  }

  return { open, trail, show, back, close }
})
