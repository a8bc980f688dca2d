import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { api, type EditResult, type Step } from '@/api/client'
import { useBuild, useEdit } from '@/shared/useBuild'

/** Steps in the order they can be done, with what each waits for, and the clock of the one that runs. */
export function useSteps() {
  const { id, document: build, overview } = useBuild()
  const { absorb, set } = useEdit()
  const now = ref(Math.floor(Date.now() / 1000))
  let timer = 0
  onMounted(() => (timer = window.setInterval(() => (now.value = Math.floor(Date.now() / 1000)), 1000)))
  onBeforeUnmount(() => clearInterval(timer))

  const byRef = computed(() => new Map((build.value?.steps ?? []).map((step) => [step.ref, step])))
  const rows = computed(() =>
    (overview.value?.steps ?? []).flatMap((state) => {
      const step = byRef.value.get(state.ref)

      return step === undefined ? [] : [{ step, waitsFor: state.waits_for, verdict: state.verdict, gates: state.gates }]
    }),
  )
  const next = computed(() => rows.value.find((row) => row.step.state === 'open' && row.waitsFor.length === 0))
  const runs = (step: Step) =>
    step.timings?.length !== undefined && step.timings.length > 0 && step.timings.at(-1)!.stop === undefined
  const worked = (step: Step) =>
    (step.timings ?? []).reduce((sum, timing) => sum + Math.max(0, (timing.stop ?? now.value) - timing.start), 0)

  async function clockOf(step: Step, running: boolean): Promise<void> {
    absorb(
      await api.post<EditResult>(`/api/builds/${id.value}/steps/${step.ref}/timer`, {
        running,
        timings: step.timings ?? [],
      }),
    )
  }
  const store = (step: Step, what: string, path: string[]) => (text: string, was: unknown) =>
    set(`${what} of “${step.title}”`, 'steps', step.ref, path, was, text === '' ? null : text)

  return { byRef, rows, next, runs, worked, clockOf, store }
}
