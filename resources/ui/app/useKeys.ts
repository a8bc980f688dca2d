import { onBeforeUnmount, onMounted } from 'vue'

/** Single keys that act while nothing is being typed. */
export function useKeys(actions: Record<string, () => void>): void {
  function pressed(event: KeyboardEvent): void {
    const target = event.target as HTMLElement | null
    const typing = target?.closest('input, textarea, select, [contenteditable], [role="dialog"]') !== null
    if (!typing && !event.ctrlKey && !event.metaKey && !event.altKey && actions[event.key] !== undefined) {
      event.preventDefault()
      actions[event.key]?.()
    }
  }
  onMounted(() => window.addEventListener('keydown', pressed))
  onBeforeUnmount(() => window.removeEventListener('keydown', pressed))
}
