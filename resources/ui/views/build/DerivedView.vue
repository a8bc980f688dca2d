<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { reasonOf, type Change, type DerivedSteps, type Step } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { written } from '@/shared/decimals'
import { percent } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import StepNetwork from './StepNetwork.vue'

/** The steps that follow from joints, parts and leads, in a safe order; taken once, and brought up to date when the model changes. */
const { id, document: build, roleOf } = useBuild()
const { edit } = useEdit()
const notices = useNotices()
const router = useRouter()
/** As a list, or drawn by what waits for what. */
const isDrawn = ref(false)
const sections = computed(() => new Map((derived.value?.sections ?? []).map((one) => [one.section, one])))
const toStep = (draft: Draft) => {
  const step = renewal.value.get(draft.key)?.ref
  if (step) void router.push(`/builds/${id.value}/build/bench/${step}`)
}
const { data: derived, isError, error } = useDerived<DerivedSteps>('derived-steps', () => 'derived-steps')
type Draft = DerivedSteps['steps'][number]
const busy = ref(false)
const held = computed(
  () =>
    new Map(
      (build.value?.steps ?? []).flatMap((step): [string, Step][] =>
        [...(step.derived ? [step.derived] : []), ...(step.also ?? [])].map((key) => [key, step]),
      ),
    ),
)
const steps = computed(() => derived.value?.steps ?? [])
const fresh = computed(() => steps.value.filter((draft) => !held.value.has(draft.key)))
/** How each stands against the step that was taken of it, by its key. */
const renewal = computed(() => new Map((derived.value?.renewal.rows ?? []).map((row) => [row.key, row])))
const inState = (state: string) => steps.value.filter((draft) => renewal.value.get(draft.key)?.state === state)
const changed = computed(() => inState('changed'))
/** Both the model and the builder have changed it, and differently. */
const disputed = computed(() => inState('disputed'))
/** Done, and the model wants other pieces or another reading. */
const overtaken = computed(() => inState('void'))
const gone = computed(() => derived.value?.renewal.gone ?? [])
/** What the button does, in words. */
const offered = computed(() => {
  const renewing = changed.value.length + disputed.value.length

  return fresh.value.length === 0
    ? `Bring ${renewing} up to date`
    : `Take ${fresh.value.length} new${renewing ? `, bring ${renewing} up to date` : ''}`
})
/** Whose of two values is taken, by key and field; the builder's own where nothing is said. */
const chosen = ref<Record<string, 'own' | 'model'>>({})
const isFirstOf = (i: number) => i === 0 || steps.value[i]!.section !== steps.value[i - 1]!.section
const stateOf = (draft: Draft) => {
  const state = renewal.value.get(draft.key)?.state

  return state === undefined || state === 'same' ? (held.value.get(draft.key)?.state ?? 'open') : state
}
/** A value of a step, in words. */
function told(field: string, value: unknown): string {
  if (value === null || value === undefined) return 'nothing'
  if (field === 'uses') {
    return Object.entries(value as Record<string, number>)
      .map(([need, pieces]) => `${pieces} × ${roleOf(need)}`)
      .join(', ')
  }
  if (field === 'check') {
    const check = value as { what: string; nominal: string; tolerance: string }

    return `${check.what}: ${check.nominal} ± ${check.tolerance}`
  }

  return Array.isArray(value) ? value.join(', ') : String(value)
}

/** What of a step that was taken follows the model, and what it stands against from now on. */
function renewed(draft: Draft): Change {
  const step = held.value.get(draft.key)!
  const row = renewal.value.get(draft.key)!
  const set = row.fields.flatMap(({ field, own, model, choice }): NonNullable<Change['set']> =>
    choice === 'model' || (choice === 'ask' && chosen.value[`${draft.key} ${field}`] === 'model')
      ? field === 'check' && model !== null
        ? Object.entries(model as Record<string, string>).map(([part, to]) => ({ path: ['check', part], to }))
        : [{ path: [field], was: own ?? null, to: model }]
      : [],
  )

  return { section: 'steps', ref: step.ref, set: [...set, { path: ['base'], to: row.base }] }
}

/** What is new becomes steps, after what they wait for; what the model changed follows it; of what both changed, what is chosen. */
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
        base: renewal.value.get(draft.key)?.base,
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
  changes.push(...[...changed.value, ...disputed.value].map(renewed))
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
      <span v-if="fresh.length + changed.length + disputed.length" class="push"
        ><v-btn color="primary" variant="flat" :loading="busy" @click="take()">{{ offered }}</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="derived && steps.length === 0" class="empty">
      Nothing follows from the model yet: steps come of its joints, parts and leads.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
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
        No longer in the model:
        {{ gone.map((step) => (step.is_done ? `${step.title} (done: to be undone)` : step.title)).join('; ') }}. Delete
        it, or keep it as a step of your own.
      </p>
      <section v-if="overtaken.length" aria-label="Done, and wanted otherwise now">
        <h2 class="fails">Done, and the model wants it otherwise now</h2>
        <p v-for="draft in overtaken" :key="draft.key">
          <router-link class="link" :to="`/builds/${id}/build/bench/${held.get(draft.key)?.ref}`">{{
            held.get(draft.key)?.title
          }}</router-link>
          <span v-for="field in renewal.get(draft.key)?.fields" :key="field.field" class="small block"
            >done with {{ told(field.field, field.own) }}; now {{ told(field.field, field.model) }}</span
          >
        </p>
      </section>
      <section v-if="disputed.length" aria-label="Changed by you and by the model">
        <h2>Changed by you and by the model</h2>
        <template v-for="draft in disputed" :key="draft.key">
          <fieldset
            v-for="field in renewal.get(draft.key)?.fields.filter((one) => one.choice === 'ask')"
            :key="field.field"
            class="dispute"
          >
            <legend>{{ held.get(draft.key)?.title }}: {{ field.field }}</legend>
            <label
              ><input
                type="radio"
                :name="`${draft.key} ${field.field}`"
                :checked="chosen[`${draft.key} ${field.field}`] !== 'model'"
                @change="chosen[`${draft.key} ${field.field}`] = 'own'"
              />
              yours: {{ told(field.field, field.own) }}</label
            >
            <label
              ><input
                type="radio"
                :name="`${draft.key} ${field.field}`"
                :checked="chosen[`${draft.key} ${field.field}`] === 'model'"
                @change="chosen[`${draft.key} ${field.field}`] = 'model'"
              />
              of the model: {{ told(field.field, field.model) }}</label
            >
          </fieldset>
        </template>
      </section>
      <p class="choices" role="group" aria-label="How the steps are shown">
        <button type="button" class="plain" :aria-pressed="!isDrawn" @click="isDrawn = false">in order</button>
        <button type="button" class="plain" :aria-pressed="isDrawn" @click="isDrawn = true">what waits for what</button>
      </p>
      <StepNetwork v-if="isDrawn" :steps="steps" :state-of="stateOf" @picked="toStep" />
      <table v-else class="ledger stack" tabindex="0">
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
              <th colspan="5">
                {{ draft.section }}
                <span v-if="sections.get(draft.section)" class="quiet small"
                  >{{ written(String(sections.get(draft.section)!.hours)) }} h,
                  {{ percent(sections.get(draft.section)!.share) }} of the whole,
                  {{ sections.get(draft.section)!.difficulty
                  }}<template v-if="sections.get(draft.section)!.why.length"
                    >: {{ sections.get(draft.section)!.why.join(', ') }}</template
                  ></span
                >
              </th>
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
              <td
                class="small"
                :class="{
                  tight: ['changed', 'disputed'].includes(stateOf(draft)),
                  fails: stateOf(draft) === 'void',
                  live: stateOf(draft) === 'new',
                }"
              >
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
h2 {
  margin: 12px 0 4px;
}
.dispute {
  padding: 4px 12px 8px;
  margin: 6px 0;
  border: 1px solid var(--rule);
}
.dispute label {
  display: block;
}
.block {
  display: block;
}
.what {
  max-width: 560px;
}
@media (max-width: 700px) {
  tr.grouped th {
    white-space: normal;
  }
  .what {
    max-width: calc(100% - 72px);
  }
}
</style>
