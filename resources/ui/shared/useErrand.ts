import { computed, onBeforeUnmount, ref } from 'vue'
import { api, Problem, type Errand } from '@/api/client'
import { useBuildId } from './useBuild'

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds))

/**
 * What the server does in the background for whoever asks: sent, followed, stopped, tried again. It goes on when the page is left, and is
 * found again by whoever comes back.
 */
export function useErrand<T>(kind: Errand['kind']) {
  const id = useBuildId()
  const errand = ref<Errand | null>(null)
  const goes = computed(() => errand.value?.state === 'waiting' || errand.value?.state === 'running')
  const path = (of: Errand) => `/api/builds/${id.value}/errands/${of.key}`
  let left = false
  onBeforeUnmount(() => (left = true))

  /** What came of it; null when it was stopped or the page was left. */
  async function follow(from: Errand): Promise<T | null> {
    errand.value = from
    for (let wait = 250; goes.value; wait = Math.min(2000, wait * 1.5)) {
      await pause(wait)
      if (left) return null
      try {
        const now = await api.get<Errand>(path(from))
        // Another was sent meanwhile: that one is followed now.
        if (errand.value?.key !== from.key) return null
        errand.value = now
      } catch (error) {
        // A missed look is made up by the next one; what is not there is not waited for.
        if (error instanceof Problem && error.body.status === 404) throw error
      }
    }
    if (errand.value?.state === 'failed') throw new Error(errand.value.trouble ?? 'It did not work.')

    return errand.value?.state === 'done' ? (errand.value.answer as T) : null
  }

  async function send(fields: Record<string, string | Blob> = {}): Promise<T | null> {
    const form = new FormData()
    form.append('kind', kind)
    for (const [name, value] of Object.entries(fields)) form.append(name, value)

    return follow(await api.post<Errand>(`/api/builds/${id.value}/errands`, form))
  }
  async function again(): Promise<T | null> {
    return errand.value === null ? null : follow(await api.post<Errand>(`${path(errand.value)}/again`))
  }
  async function stop(): Promise<void> {
    if (errand.value !== null) errand.value = await api.delete<Errand>(path(errand.value))
  }
  /** The last one of its kind, whoever asked for it here before. */
  async function last(): Promise<Errand | null> {
    const all = await api.get<Errand[]>(`/api/builds/${id.value}/errands`)

    return all.find((one) => one.kind === kind) ?? null
  }

  return {
    errand,
    goes,
    send,
    follow,
    again,
    stop,
    last,
    file: computed(() => errand.value && `${path(errand.value)}/file`),
  }
}
