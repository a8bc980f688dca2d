import { ref, watch, type Ref } from 'vue'
import type { BuildDocument } from '@/api/client'
import { answers, laid, pictures } from './caches'

/** Fetched again when it is older. */
const FRESH = 300_000

/** Lays what the bench reads of a build on the device, so that it opens where there is no network; says since when it lies there. */
export function useKept(id: Ref<number>, document: Ref<BuildDocument | undefined>): Ref<Date | null> {
  const since = ref<Date | null>(null)

  async function keep(): Promise<void> {
    const build = id.value
    if (!('caches' in window) || !('serviceWorker' in navigator) || document.value === undefined) return
    const last = laid.get(build) ?? 0
    if (Date.now() - last < FRESH) {
      since.value = new Date(last)

      return
    }
    const of = `/api/builds/${build}`
    try {
      // Asked for where a bench is first opened: whoever only plans has nothing to lay on the device.
      await navigator.serviceWorker.register('/worker.js')
      await navigator.serviceWorker.ready
      const read = await caches.open(answers)
      await read.addAll([
        '/api/session',
        '/api/catalogue',
        '/api/builds',
        of,
        ...['documents', 'bags', 'look-ahead', 'open-items', 'derived-steps', 'hours', 'ladder', 'evening?hours=2'].map(
          (one) => `${of}/${one}`,
        ),
      ])
      const shown = await caches.open(pictures)
      for (const name of (document.value.faults ?? []).flatMap((fault) => fault.photos ?? [])) {
        const at = `${of}/photos/${name}`
        if ((await shown.match(at)) === undefined) await shown.add(at)
      }
      laid.set(build, Date.now())
      since.value = new Date()
    } catch {
      // No network now: what lay here stays, and the next visit tries again.
    }
  }
  watch([id, () => document.value !== undefined], () => void keep(), { immediate: true })

  return since
}
