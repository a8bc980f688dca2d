<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type FaultCase, type Fault } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { day, words } from '@/shared/format'
import { shrunk } from '@/shared/pictures'
import { freshRef } from '@/shared/refs'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { useWaiting } from '@/offline/useWaiting'
import { usePanel } from '@/shared/usePanel'
import PictureMarks from './PictureMarks.vue'

/** All of a fault: what it is, what was tried, what it cost, what to suspect, what else may have it, and what puts it right. */
const props = defineProps<{ faultRef: string }>()
const { id, document: build } = useBuild()
const { set, edit } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const panel = usePanel()
const waiting = useWaiting()
const fault = computed(() => build.value?.faults?.find((one) => one.ref === props.faultRef))
const { data: looked } = useDerived<FaultCase>('fault-case', () =>
  fault.value === undefined ? '' : `faults/${props.faultRef}/case?offset=${-new Date().getTimezoneOffset()}`,
)
const list = (keys: string[] | undefined) => (keys ?? []).map((key) => ({ value: key, title: words(key) }))
const steps = computed(() => (build.value?.steps ?? []).map((step) => ({ value: step.ref, title: step.title })))
const needs = computed(() => (build.value?.needs ?? []).map((need) => ({ value: need.ref, title: need.role })))
const leads = computed(() => (build.value?.leads ?? []).map((lead) => ({ value: lead.ref, title: lead.ref })))
const practices = computed(() => [
  ...new Set((build.value?.faults ?? []).flatMap((one) => (one.practice ? [one.practice] : []))),
])
const titleOf = (ref: string) => build.value?.steps?.find((one) => one.ref === ref)?.title ?? ref
const store = (what: string, path: keyof Fault) => (text: string, was: unknown) =>
  set(
    `${what} of “${fault.value!.what}”`,
    'faults',
    fault.value!.ref,
    [path],
    was,
    text === '' ? null : path === 'days' && /^\d+$/.test(text) ? Number(text) : text,
  )
const rework = ref<string | null>(null)

async function tried(work: () => Promise<unknown>): Promise<void> {
  try {
    await work()
  } catch (error) {
    notices.say(reasonOf(error), true)
  }
}
async function add(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file === undefined) return
  await tried(async () => {
    const one = fault.value!
    const picture = await shrunk(file)
    await edit(
      'A picture',
      [
        {
          section: 'faults',
          ref: one.ref,
          set: [{ path: ['photos'], was: one.photos ?? null, to: [...(one.photos ?? []), picture.name] }],
        },
      ],
      [picture],
    )
  })
  input.value = ''
}
const spotsOf = (photo: string) =>
  (fault.value?.marks ?? []).filter((one) => one.photo === photo).map(({ x = 0, y = 0 }) => ({ x, y }))
const mark = (photo: string, spots: { x: number; y: number }[]) =>
  tried(() => {
    const others = (fault.value!.marks ?? []).filter((one) => one.photo !== photo)
    const all = [...others, ...spots.map(({ x, y }) => ({ photo, x, y }))]

    return set(
      'A spot on a picture',
      'faults',
      fault.value!.ref,
      ['marks'],
      fault.value!.marks ?? null,
      all.length ? all : null,
    )
  })
/** A step that puts it right, beside the one it was found at. */
const addRework = () =>
  tried(async () => {
    const one = fault.value!
    const at = build.value?.steps?.find((step) => step.ref === one.step)
    const made = freshRef('s', build.value?.steps, waiting.cut)
    await edit(`Rework for “${one.what}”`, [
      {
        section: 'steps',
        create: {
          ref: made,
          position: (at?.position ?? Math.max(0, ...(build.value?.steps ?? []).map((step) => step.position ?? 0))) + 1,
          section: at?.section ?? 'Rework',
          title: rework.value,
          ...(one.need ? { uses: { [one.need]: 1 } } : {}),
          notes: `Puts right: ${one.what}`,
        },
      },
      {
        section: 'faults',
        ref: one.ref,
        set: [{ path: ['rework'], was: one.rework ?? null, to: [...(one.rework ?? []), made] }],
      },
    ])
    rework.value = null
  })
/** The look that would have caught it, written down at the step that first had the part in hand. */
const addCheck = () =>
  tried(() => {
    const earlier = looked.value!.earlier!
    const notes = build.value?.steps?.find((step) => step.ref === earlier.step)?.notes
    const look = `Look before going on: ${fault.value!.cause ?? fault.value!.what}`

    return edit(`A look at “${earlier.title}”`, [
      {
        section: 'steps',
        ref: earlier.step,
        set: [{ path: ['notes'], was: notes ?? null, to: notes ? `${notes}\n${look}` : look }],
      },
      {
        section: 'faults',
        ref: fault.value!.ref,
        set: [{ path: ['caught'], was: fault.value!.caught ?? null, to: `A look at “${earlier.title}”` }],
      },
    ])
  })
const open = (section: string, ref: string) => {
  if (section === 'steps') panel.show({ kind: 'step', ref })
  else if (section === 'needs') panel.show({ kind: 'part', ref })
  else if (section === 'faults') panel.show({ kind: 'fault', ref })
}
</script>

<template>
  <template v-if="fault">
    <h2><EditCell long label="What is wrong" :value="fault.what" :save="store('What', 'what')" /></h2>
    <p class="quiet small">Found {{ day(fault.found) }}</p>
    <dl class="facts">
      <dt>State</dt>
      <dd>
        <EditCell
          label="State"
          :value="fault.state"
          :otherwise="'open'"
          :options="list(catalogue?.fault_states)"
          :save="store('State', 'state')"
        />
      </dd>
      <dt>How bad</dt>
      <dd>
        <EditCell
          label="How bad"
          :value="fault.severity"
          :options="list(catalogue?.severities)"
          :save="store('Severity', 'severity')"
        />
      </dd>
      <dt>Kind</dt>
      <dd>
        <EditCell
          label="Kind"
          :value="fault.kind"
          :options="list(catalogue?.fault_kinds)"
          :save="store('Kind', 'kind')"
        />
      </dd>
      <dt>Found by</dt>
      <dd>
        <EditCell label="Found by" :value="fault.by" :options="list(catalogue?.found_by)" :save="store('How', 'by')" />
      </dd>
      <dt>Whose</dt>
      <dd>
        <EditCell
          label="Of the kit or by own hand"
          :value="fault.hand"
          :options="list(catalogue?.hands)"
          :save="store('Hand', 'hand')"
        />
      </dd>
      <dt>Part</dt>
      <dd><EditCell label="Part" :value="fault.need" :options="needs" :save="store('Part', 'need')" /></dd>
      <dt>Lead</dt>
      <dd><EditCell label="Lead" :value="fault.lead" :options="leads" :save="store('Lead', 'lead')" /></dd>
      <dt>Step</dt>
      <dd><EditCell label="Step" :value="fault.step" :options="steps" :save="store('Step', 'step')" /></dd>
      <dt>Cost</dt>
      <dd>
        <EditCell figure label="Cost" :value="fault.cost" :save="store('Cost', 'cost')" /><span class="unit">{{
          build?.build.currency
        }}</span>
      </dd>
      <dt>Hours lost</dt>
      <dd><EditCell figure label="Hours lost" :value="fault.lost" unit="h" :save="store('Time lost', 'lost')" /></dd>
      <dt>Days it stood</dt>
      <dd><EditCell figure label="Days it stood" :value="fault.days" :save="store('Days', 'days')" /></dd>
      <dt>Lot</dt>
      <dd><EditCell label="Lot" :value="fault.lot" :save="store('Lot', 'lot')" /></dd>
      <dt>Way of working</dt>
      <dd>
        <EditCell label="Way of working" :value="fault.practice" :save="store('Practice', 'practice')" />
        <span v-if="practices.length && !fault.practice" class="quiet small">so far: {{ practices.join(', ') }}</span>
      </dd>
    </dl>
    <h3>Tried</h3>
    <EditCell long label="Tried" :value="fault.tried" placeholder="nothing yet" :save="store('Tried', 'tried')" />
    <h3>Cause</h3>
    <EditCell long label="Cause" :value="fault.cause" placeholder="not known yet" :save="store('Cause', 'cause')" />
    <h3>Fix</h3>
    <EditCell long label="Fix" :value="fault.fix" placeholder="none yet" :save="store('Fix', 'fix')" />
    <template v-if="looked?.suspects.length">
      <h3>Suspect first</h3>
      <ul>
        <li v-for="one in looked.suspects.slice(0, 6)" :key="`${one.ref}/${one.why}`">
          <button type="button" class="plain link" @click="open(one.section, one.ref)">{{ one.what }}</button>:
          {{ one.why }}
        </li>
      </ul>
    </template>
    <template v-if="looked?.siblings.length">
      <h3>May have it too</h3>
      <ul>
        <li v-for="one in looked.siblings.slice(0, 8)" :key="`${one.section}/${one.ref}`">
          <button type="button" class="plain link" @click="open(one.section, one.ref)">{{ one.what }}</button>:
          {{ one.why }}
        </li>
      </ul>
    </template>
    <template v-if="looked?.earlier">
      <h3>Would have been caught</h3>
      <p class="small">
        It was first in hand at
        <button type="button" class="plain link" @click="open('steps', looked.earlier.step)">
          {{ looked.earlier.title }}</button>: {{ looked.earlier.steps }} done
        {{ looked.earlier.steps === 1 ? 'step' : 'steps' }} and {{ looked.earlier.hours }} h before it was found.
        <template v-if="looked.earlier.has_check">Its reading did not show it.</template>
      </p>
      <v-btn v-if="!fault.caught" size="small" @click="addCheck()">Add that look to the step</v-btn>
      <p v-else class="quiet small">Added: {{ fault.caught }}</p>
    </template>
    <h3>Rework</h3>
    <ul v-if="fault.rework?.length">
      <li v-for="one in fault.rework" :key="one">
        <button type="button" class="plain link" @click="open('steps', one)">{{ titleOf(one) }}</button>
      </li>
    </ul>
    <form v-if="rework !== null" @submit.prevent="addRework()">
      <input
        v-model="rework"
        class="field"
        aria-label="What puts it right"
        placeholder="crimp it again, with two contacts"
      />
      <v-btn type="submit" size="small" color="primary" :disabled="!rework.trim()">Add the step</v-btn>
    </form>
    <button v-else type="button" class="plain link small" @click="rework = ''">Add a step that puts it right</button>
    <h3>Pictures</h3>
    <PictureMarks
      v-for="photo in fault.photos"
      :key="photo"
      :src="`/api/builds/${id}/photos/${photo}`"
      :alt="`Picture of: ${fault.what}`"
      :spots="spotsOf(photo)"
      @change="(spots) => mark(photo, spots)"
    />
    <label class="link small"
      ><input type="file" accept="image/*" capture="environment" @change="add" />Add a picture</label
    >
  </template>
  <p v-else class="quiet">This fault is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 16px 0 2px;
}
ul {
  padding-left: 18px;
  margin: 0;
  font-size: 14px;
}
label input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
label {
  cursor: pointer;
  color: var(--live);
  text-decoration: underline;
}
label:focus-within {
  outline: 2px solid var(--live);
}
</style>
