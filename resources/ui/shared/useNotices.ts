import { defineStore } from 'pinia'
import { nextTick, ref, watch } from 'vue'
import { reasonOf, type Tally, type Verdict } from '@/api/client'

/** What just happened: a line at the foot of the screen, and which verdict counts an edit changed. */
export const useNotices = defineStore('notices', () => {
  const line = ref('')
  const grave = ref(false)
  /** Read out only: what every edit has done, a row added or gone too. */
  const told = ref('')
  const shown = ref(false)
  const moved = ref<Partial<Record<Verdict, number>>>({})
  let timer = 0
  let later = ''
  let saying: ReturnType<typeof setTimeout> | undefined

  /** Stays long enough to be read, from when it stands there: a long one longer, what went wrong three times as long. */
  function say(text: string, isGrave = false): void {
    line.value = text
    grave.value = isGrave
    shown.value = true
    void nextTick(() => {
      clearTimeout(saying)
      saying = setTimeout(() => (shown.value = false), (grave.value ? 3 : 1) * (4000 + 40 * line.value.length))
    })
  }

  /** What others did: said once the line is free, so that it takes away no word of one's own act. The newest waits. */
  function news(text: string): void {
    if (shown.value) {
      later = text
    } else {
      say(text)
    }
  }
  watch(shown, (isShown) => {
    if (!isShown && later !== '') {
      say(later)
      later = ''
    }
  })

  function problem(error: unknown): void {
    say(reasonOf(error), true)
  }

  function tallyChanged(before: Tally, after: Tally): void {
    const changed: Partial<Record<Verdict, number>> = {}
    for (const verdict of Object.keys(after) as Verdict[]) {
      if (before[verdict] !== after[verdict]) {
        changed[verdict] = before[verdict]
      }
    }
    moved.value = changed
    clearTimeout(timer)
    timer = window.setTimeout(() => (moved.value = {}), 8000)
  }

  return { told, line, grave, shown, moved, say, news, problem, tallyChanged }
})
