<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Change, type DerivedSteps, type Step } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { written } from '@/shared/decimals'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** The steps that follow from joints, parts and leads, in a safe order; taken once, and brought up to date when the model changes. */
const { id, document: build, roleOf } = useBuild()
const { edit } = useEdit()
const notices = useNotices()
const { data: derived, isError, error } = useDerived<DerivedSteps>('derived-steps', () => 'derived-steps')
type Draft = DerivedSteps['steps'][number]
const busy = ref(false)
const held = computed(
  () =>
    new Map(
      (build.value?.steps ?? []).flatMap((step): [string, Step][] => (step.derived ? [[step.derived, step]] : [])),
    ),
)
const steps = computed(() => derived.value?.steps ?? [])
const fresh = computed(() => steps.value.filter((draft) => !held.value.has(draft.key)))
/** An open step whose pieces are no longer those of the model; what is done stays as it was done. */
const changed = computed(() =>
  steps.value.filter((draft) => {
    const step = held.value.get(draft.key)

    return step !== undefined && step.state !== 'done' && !sameUses(step.uses ?? {}, draft.uses)
  }),
)
const gone = computed(() => {
  const keys = new Set(steps.value.map((draft) => draft.key))

  return [...held.value.values()].filter((step) => !keys.has(step.derived ?? ''))
})
const sameUses = (a: Record<string, number>, b: Record<string, number>) =>
  Object.keys({ ...a, ...b }).every((need) => a[need] === b[need])
const isFirstOf = (i: number) => i === 0 || steps.value[i]!.section !== steps.value[i - 1]!.section
const stateOf = (draft: Draft) =>
  changed.value.includes(draft)
    ? 'changed'
    : (held.value.get(draft.key)?.state ?? (held.value.has(draft.key) ? 'open' : 'new'))

/** What is new becomes steps, after what they wait for; what changed takes the pieces of the model. */
async function take(): Promise<void> {
  busy.value = true
  const taken = new Set((build.value?.steps ?? []).map((step) => step.ref))
  const refs = new Map([...held.value].map(([key, step]) => [key, step.ref]))
  let number = 0
  for (const draft of fresh.value) {
    do number++
    while (taken.has(`m${number}`))
    taken.add(`m${number}`)
    refs.set(draft.key, `m${number}`)
  }
  const start = Math.max(0, ...(build.value?.steps ?? []).map((step) => step.position ?? 0)) + 10
  const changes: Change[] = fresh.value.map((draft, i) => {
    const after = draft.after.flatMap((key) => refs.get(key) ?? [])

    return {
      section: 'steps',
      create: {
        ref: refs.get(draft.key),
        position: start + i * 10,
        section: draft.section,
        title: draft.title.slice(0, 200),
        derived: draft.key,
        guide: `${Math.round(draft.hours * 60)} min`,
        ...(after.length ? { after } : {}),
        ...(draft.tools.length ? { tools: draft.tools } : {}),
        ...(draft.cautions.length ? { cautions: draft.cautions } : {}),
        ...(Object.keys(draft.uses).length ? { uses: draft.uses } : {}),
        ...(draft.notes.length ? { notes: draft.notes.join('\n') } : {}),
        ...(draft.check ? { check: draft.check } : {}),
      },
    }
  })
  for (const draft of changed.value) {
    const step = held.value.get(draft.key)!
    changes.push({
      section: 'steps',
      ref: step.ref,
      set: [{ path: ['uses'], was: step.uses ?? null, to: Object.keys(draft.uses).length ? draft.uses : null }],
    })
  }
  try {
    await edit(`${fresh.value.length} steps from the model`, changes)
    notices.say('The steps follow the model now; u undoes it.')
  } catch (problem) {
    notices.problem(problem)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Steps from the model</h1>
      <span v-if="derived" class="quiet"
        >{{ steps.length }} steps, {{ written(String(derived.hours)) }} h for a practised builder</span
      >
      <router-link class="link" :to="`/builds/${id}/build/bench`">Bench</router-link>
      <span v-if="fresh.length + changed.length" class="push"
        ><v-btn color="primary" variant="flat" :loading="busy" @click="take()"
          >Take {{ fresh.length }} new{{ changed.length ? `, bring ${changed.length} up to date` : '' }}</v-btn
        ></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="derived && steps.length === 0" class="empty">
      Nothing follows from the model yet: steps come of its joints, parts and leads.
      <FirstAction path="choose/parts">Add a part</FirstAction>
    </p>
    <template v-else-if="derived">
      <p v-if="Object.keys(derived.short).length" class="fails">
        Joints want more than the list has:
        {{
          Object.entries(derived.short)
            .map(([need, pieces]) => `${pieces} × ${roleOf(need)}`)
            .join('; ')
        }}.
      </p>
      <p v-if="derived.unplaced.length" class="unproven small">
        Goes in at no step:
        {{ derived.unplaced.map((row) => `${row.pieces} × ${row.role} (${row.why})`).join('; ') }}.
      </p>
      <p v-if="gone.length" class="unproven small">
        No longer in the model: {{ gone.map((step) => step.title).join('; ') }}. What of it is done is to be undone, or
        kept as a step of your own.
      </p>
      <table class="ledger stack" tabindex="0">
        <thead>
          <tr>
            <th>Step</th>
            <th class="wide-only">Goes in</th>
            <th class="wide-only">With</th>
            <th class="num wide-only">Takes</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="(draft, i) in steps" :key="draft.key">
            <tr v-if="isFirstOf(i)" class="grouped">
              <th colspan="5">{{ draft.section }}</th>
            </tr>
            <tr>
              <td class="what">
                {{ draft.title
                }}<span v-for="note in draft.notes" :key="note" class="quiet small block">{{ note }}</span
                ><span v-if="draft.check" class="small block"
                  >Measure {{ draft.check.what }}: {{ draft.check.nominal }} ± {{ draft.check.tolerance }}</span
                >
              </td>
              <td class="small wide-only">
                {{
                  Object.entries(draft.uses)
                    .map(([need, pieces]) => `${pieces} × ${roleOf(need)}`)
                    .join(', ')
                }}
              </td>
              <td class="small quiet wide-only">{{ draft.tools.join(', ') }}</td>
              <td class="num figure wide-only">{{ Math.round(draft.hours * 60) }} min</td>
              <td class="small" :class="{ tight: stateOf(draft) === 'changed', live: stateOf(draft) === 'new' }">
                {{ stateOf(draft) }}
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <p class="quiet small">
        Times by kind of work, and a limit of 0.05 mm for a pair of guides: common practice, no source. Screws crosswise
        in three stages: ASME PCC-1, from memory. Earth bond 0.1 Ω: IEC 60204-1, from memory. Local code and a licensed
        electrician decide.
      </p>
    </template>
  </div>
</template>

<style scoped>
.block {
  display: block;
}
.what {
  max-width: 560px;
}
@media (max-width: 700px) {
  .what {
    max-width: calc(100% - 72px);
  }
}
</style>
