import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, shallowRef, ref } from 'vue'
import { api, Problem, upload, type Build, type Change, type EditResult } from '@/api/client'
import { uuid } from '@/shared/refs'
import { pictures } from './caches'
import { withWaiting } from './overlay'
import { store, type Waiting } from './store'

/** What is written at a bench, and may wait for a network; all else is judged first. */
const bench = new Set([
  'steps',
  'faults',
  'leads',
  'bags',
  'documents',
  'questions',
  'prints',
  'readings',
  'rungs',
  'attempts',
])
/** Tried again this often while something waits. */
const AGAIN = 4000

export const mayWait = (changes: Change[]) => changes.every((change) => bench.has(change.section))

/** The server was not reached, or could not look at it: the same may be tried again. */
export function wasNotReached(error: unknown): boolean {
  return error instanceof Problem && (error.body.status === 0 || error.body.status >= 500)
}

/** Entries a waiting edit touches, "steps/s4". */
export function touched(one: { changes: Change[] }): string[] {
  return one.changes.map((change) => `${change.section}/${change.ref ?? String(change.create?.ref ?? '')}`)
}

/**
 * Edits that could not be sent yet. They are kept on the device, seen as if they were stored, and sent in their order as soon
 * as the server answers. One that it refuses is kept with the reason and both values; what builds on it waits with it.
 */
export const useWaiting = defineStore('waiting', () => {
  const client = useQueryClient()
  const list = shallowRef<Waiting[]>([])
  const cut = ref(false)
  const signedOut = ref(false)
  const sending = ref(false)
  const refused = computed(() => list.value.filter((one) => one.refused !== undefined))
  const of = (build: number) => list.value.filter((one) => one.build === build)
  let again = 0

  async function load(): Promise<void> {
    try {
      list.value = await store.all()
    } catch {
      // A browser that keeps nothing for us has nothing waiting.
      list.value = []
    }
    if (list.value.some((one) => one.refused === undefined)) later()
  }

  function later(): void {
    clearTimeout(again)
    again = window.setTimeout(() => void send(), AGAIN)
  }

  async function add(one: Waiting): Promise<void> {
    const kept = { ...one, id: await store.put(one) }
    list.value = [...list.value, kept]
    for (const { name, blob } of one.pictures) {
      // The picture is shown from here until the server has it.
      if ('caches' in window) {
        await (await caches.open(pictures)).put(`/api/builds/${one.build}/photos/${name}`, new Response(blob))
      }
    }
    client.setQueryData<Build>(['build', one.build], (held) => (held === undefined ? held : withWaiting(held, [kept])))
    cut.value = true
    later()
  }

  /** Sends what waits, in its order, up to the first that the server cannot be reached for. */
  async function send(): Promise<void> {
    if (sending.value || list.value.length === 0) return
    sending.value = true
    try {
      if ('locks' in navigator) {
        await navigator.locks.request('magpie-waiting', { ifAvailable: true }, async (lock) => {
          if (lock !== null) await sendAll()
        })
      } else {
        await sendAll()
      }
    } finally {
      sending.value = false
      if (list.value.some((one) => one.refused === undefined)) later()
    }
  }

  async function sendAll(): Promise<void> {
    const behind = new Set<string>()
    for (const one of await store.all()) {
      const names = touched(one).map((name) => `${one.build}/${name}`)
      if (one.refused !== undefined || names.some((name) => behind.has(name))) {
        names.forEach((name) => behind.add(name))
        continue
      }
      try {
        const result = await post(one)
        await store.remove(one.id!)
        list.value = list.value.filter((other) => other.id !== one.id)
        cut.value = signedOut.value = false
        laid?.(one.build, result)
      } catch (error) {
        if (!(error instanceof Problem) || wasNotReached(error)) {
          cut.value = true

          return
        }
        if ([401, 403, 419, 429].includes(error.body.status)) {
          signedOut.value = error.body.status !== 429

          return
        }
        const clashes = error.body.clashes ?? []
        await change({ ...one, refused: { reason: error.message, clashes } })
        names.forEach((name) => behind.add(name))
      }
    }
  }

  /** What lays an answer into what the screens hold; set once by the application. */
  let laid: ((build: number, result: EditResult) => void) | undefined
  const onSent = (work: typeof laid) => (laid = work)

  async function change(one: Waiting): Promise<void> {
    await store.put(one)
    list.value = list.value.map((other) => (other.id === one.id ? one : other))
  }

  /** Takes a waiting edit away, and shows the build as the server has it, with what else waits. */
  async function drop(one: Waiting): Promise<void> {
    await store.remove(one.id!)
    list.value = list.value.filter((other) => other.id !== one.id)
    await client.invalidateQueries({ queryKey: ['build', one.build] })
  }

  /** Sends a refused edit again over what stands there now. */
  async function insist(one: Waiting): Promise<void> {
    const changes = one.changes.map((change) => ({
      ...change,
      ...(change.set === undefined ? {} : { set: change.set.map(({ path, to }) => ({ path, to })) }),
    }))
    await change({ ...one, key: uuid(), changes: changes as Change[], refused: undefined })
    await send()
  }

  return { list, cut, signedOut, sending, refused, of, load, add, send, drop, insist, onSent }
})

/** Sends one edit, its pictures first. Sent twice it is made once. */
export async function post(one: Waiting, more: Record<string, unknown> = {}): Promise<EditResult> {
  for (const { name, blob } of one.pictures) {
    await upload(`/api/builds/${one.build}/photos`, 'photo', new File([blob], name, { type: blob.type }), { name })
  }

  return await api.post<EditResult>(`/api/builds/${one.build}/edits`, {
    key: one.key,
    label: one.label,
    changes: one.changes,
    ...more,
  })
}
