import { onBeforeUnmount, onMounted } from 'vue'

/** What takes typing for itself, or chooses by it. */
const takesTyping =
  'input, textarea, select, [contenteditable], [role="dialog"], [role="listbox"], [role="menu"], [role="combobox"], .v-overlay'

/** Single keys that act while nothing is being typed, and no list is open that is walked by typing. */
export function useKeys(actions: Record<string, () => void>): void {
  function pressed(event: KeyboardEvent): void {
    const target = event.target as HTMLElement | null
    const typing =
      target?.closest(takesTyping) !== null ||
      document.querySelector('.v-overlay--active [role="listbox"], .v-overlay--active [role="menu"]') !== null
    if (!typing && !event.ctrlKey && !event.metaKey && !event.altKey && actions[event.key] !== undefined) {
      event.preventDefault()
      actions[event.key]?.()
    }
  }
  onMounted(() => window.addEventListener('keydown', pressed))
  onBeforeUnmount(() => window.removeEventListener('keydown', pressed))
}
