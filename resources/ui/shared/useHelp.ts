import { defineStore } from 'pinia'
import { ref } from 'vue'

/** What is told beside a word while it is pointed at, focused or tapped; one bubble serves the whole page. */
export const useHelp = defineStore('help', () => {
  const lines = ref<string[]>([])
  const at = ref<DOMRect | null>(null)
  /** Tapped or clicked: it stays until something else is. */
  const pinned = ref(false)
  let timer = 0

  function show(anchor: Element, text: string[], pin = false): void {
    clearTimeout(timer)
    const open = () => {
      lines.value = text.filter((line) => line !== '')
      at.value = anchor.getBoundingClientRect()
      pinned.value = pin
    }
    // Passing over it on the way elsewhere opens nothing.
    if (pin) open()
    else timer = window.setTimeout(open, 250)
  }

  function hide(): void {
    clearTimeout(timer)
    at.value = null
    pinned.value = false
  }

  function leave(): void {
    if (pinned.value) clearTimeout(timer)
    else hide()
  }

  return { lines, at, pinned, show, hide, leave }
})
