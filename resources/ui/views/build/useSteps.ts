import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import type { Step } from '@/api/client'
import { isOpenDanger } from '@/shared/faults'
import { whoIsHere } from '@/shared/session'
import { useBuild, useEdit } from '@/shared/useBuild'

/** Steps in the order they can be done, with what each waits for, and the clock of the one that runs. */
export function useSteps() {
  const { document: build, overview } = useBuild()
  const { set } = useEdit()
  const now = ref(Math.floor(Date.now() / 1000))
  /** Whose clock it is, where several work at one machine. */
  const me = ref<string | undefined>()
  let timer = 0
  onMounted(async () => {
    timer = window.setInterval(() => (now.value = Math.floor(Date.now() / 1000)), 1000)
    me.value = (await whoIsHere().catch(() => null))?.user?.name
  })
  onBeforeUnmount(() => clearInterval(timer))

  const byRef = computed(() => new Map((build.value?.steps ?? []).map((step) => [step.ref, step])))
  const isOpen = (step: Step | undefined) => step?.state === 'open' || (step !== undefined && step.state === undefined)
  const rows = computed(() => {
    const judged = new Set((overview.value?.steps ?? []).map((one) => one.ref))
    // What was added with no network is not judged yet, and stands at the end.
    const fresh = (build.value?.steps ?? [])
      .filter((step) => !judged.has(step.ref))
      .map((step) => ({ ref: step.ref, waits_for: step.after ?? [], verdict: null, gates: [] }))

    return [...(overview.value?.steps ?? []), ...fresh].flatMap((state) => {
      const step = byRef.value.get(state.ref)
      // A danger logged with no network keeps what it is on at once.
      const dangers = (build.value?.faults ?? [])
        .filter(
          (fault) =>
            isOpenDanger(fault) &&
            (fault.step === state.ref || step?.uses?.[fault.need ?? ''] !== undefined) &&
            !state.gates.some((gate) => gate.ref === fault.ref),
        )
        .map((fault) => ({ kind: 'fault' as const, says: `open danger: ${fault.what}`, ref: fault.ref }))
      // A step that was done, or a reading taken, since the server was last asked keeps nothing any more.
      const gates = [...dangers, ...state.gates].filter(
        (gate) =>
          !(gate.kind === 'step' && gate.ref !== null && !isOpen(byRef.value.get(gate.ref))) &&
          !(gate.kind === 'reading' && step?.check?.measured !== undefined && gate.says.endsWith('was not measured')),
      )

      return step === undefined
        ? []
        : [
            {
              step,
              waitsFor: state.waits_for.filter((ref) => isOpen(byRef.value.get(ref))),
              verdict: state.verdict,
              gates,
            },
          ]
    })
  })
  const next = computed(() => rows.value.find((row) => isOpen(row.step) && row.waitsFor.length === 0))
  /** The own clock that runs, or one nobody put a name to. */
  const running = (step: Step) =>
    (step.timings ?? []).findIndex(
      (timing) => timing.stop === undefined && (timing.by === undefined || timing.by === me.value),
    )
  const runs = (step: Step) => running(step) >= 0
  const worked = (step: Step) =>
    (step.timings ?? []).reduce((sum, timing) => sum + Math.max(0, (timing.stop ?? now.value) - timing.start), 0)

  /** Starts or stops the own clock of a step, by the clock of this device: it has to work with no network. */
  async function clockOf(step: Step, isOn: boolean): Promise<void> {
    const held = step.timings ?? []
    const at = running(step)
    if (isOn === at >= 0) return
    const seconds = Math.floor(Date.now() / 1000)
    const timings = isOn
      ? [...held, { start: seconds, ...(me.value === undefined ? {} : { by: me.value }) }]
      : held.map((timing, i) => (i === at ? { ...timing, stop: Math.max(timing.start, seconds) } : timing))
    await set(
      `${isOn ? 'Start' : 'Stop'} the clock of “${step.title}”`,
      'steps',
      step.ref,
      ['timings'],
      step.timings ?? null,
      timings,
    )
  }
  const store = (step: Step, what: string, path: string[]) => (text: string, was: unknown) =>
    set(`${what} of “${step.title}”`, 'steps', step.ref, path, was, text === '' ? null : text)

  return { byRef, rows, next, runs, worked, clockOf, store }
}
