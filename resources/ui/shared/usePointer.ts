/** Whether a button of the mouse, a pen or a finger is down on the page. */
let down = false
let waiting: (() => void)[] = []

function released(): void {
  down = false
  // The click that ends the press comes before anything that waited for it.
  window.setTimeout(() => {
    const now = waiting
    waiting = []
    now.forEach((go) => go())
  })
}

if (typeof window !== 'undefined') {
  window.addEventListener('pointerdown', () => (down = true), true)
  window.addEventListener('pointerup', released, true)
  window.addEventListener('pointercancel', released, true)
  window.addEventListener('blur', released)
}

/** Resolves at once, or when what is pressed has been let go and its click has been dealt with. */
export function pointerUp(): Promise<void> {
  return down ? new Promise((go) => waiting.push(go)) : Promise.resolve()
}
