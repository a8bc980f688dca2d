<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { reasonOf, type Step } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { words } from '@/shared/format'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { nextRef } from '@/shared/refs'
import { usePanel } from '@/shared/usePanel'
import { merge, split, unmergeable } from './reshape'

/** Everything a step says, edited where it stands. */
const props = defineProps<{ stepRef: string }>()
const { id, document: build, roleOf } = useBuild()
const { set, edit } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const panel = usePanel()
const router = useRouter()
const check = ref({ what: '', nominal: '', tolerance: '' })
const reason = ref('')
const step = computed(() => build.value?.steps?.find((one) => one.ref === props.stepRef))
const others = computed(() =>
  (build.value?.steps ?? []).filter((one) => one.ref !== props.stepRef && !(step.value?.after ?? []).includes(one.ref)),
)
const mergeable = computed(() =>
  (build.value?.steps ?? []).filter((one) => one.ref !== props.stepRef && (one.state ?? 'open') === 'open'),
)
const needs = computed(() => (build.value?.needs ?? []).filter((need) => step.value?.uses?.[need.ref] === undefined))
const titleOf = (ref: string) => build.value?.steps?.find((one) => one.ref === ref)?.title ?? ref

const store = (what: string, path: (string | number)[]) => (text: string, was: unknown) =>
  set(
    `${what} of “${step.value!.title}”`,
    'steps',
    props.stepRef,
    path,
    was,
    text === ''
      ? null
      : path[0] === 'position' || path[0] === 'uses'
        ? /^\d+$/.test(text)
          ? Number(text)
          : text
        : text,
  )
/** A list written with commas. */
const storeList = (what: string, key: 'tools') => (text: string) =>
  set(`${what} of “${step.value!.title}”`, 'steps', props.stepRef, [key], step.value?.[key] ?? null, listOf(text))
const listOf = (text: string) => {
  const items = text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
  return items.length ? items : null
}

async function change(label: string, key: keyof Step, to: unknown): Promise<void> {
  try {
    await set(`${label} of “${step.value!.title}”`, 'steps', props.stepRef, [key], step.value?.[key] ?? null, to)
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
const add = (key: 'after' | 'cautions', label: string, event: Event) => {
  const value = (event.target as HTMLSelectElement).value
  if (value !== '') void change(label, key, [...(step.value?.[key] ?? []), value])
}
const drop = (key: 'after' | 'cautions', label: string, value: string) => {
  const left = (step.value?.[key] ?? []).filter((one) => one !== value)
  void change(label, key, left.length ? left : null)
}
const addUse = (event: Event) => {
  const value = (event.target as HTMLSelectElement).value
  if (value !== '') void change('Parts', 'uses', { ...step.value?.uses, [value]: 1 })
}
/** Needs that go in at the second of two steps, while a step is split. */
const moved = ref<string[] | null>(null)
const secondTitle = ref('')
async function divide(): Promise<void> {
  const steps = build.value?.steps ?? []
  const ref = nextRef('S', steps)
  try {
    await edit(
      `Split step ${step.value!.title}`,
      split(step.value!, steps, moved.value!, ref, secondTitle.value || `${step.value!.title}, the rest`),
    )
    moved.value = null
    secondTitle.value = ''
    notices.say('One step is two now; u undoes it.')
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
async function mergeWith(event: Event): Promise<void> {
  const ref = (event.target as HTMLSelectElement).value
  const steps = build.value?.steps ?? []
  const other = steps.find((one) => one.ref === ref)
  if (!other) return
  const why = unmergeable(step.value!, other, steps)
  if (why !== undefined) {
    reason.value = why
    return
  }
  try {
    await edit(`Merge “${other.title}” into “${step.value!.title}”`, merge(step.value!, other, steps))
    reason.value = ''
    notices.say('Two steps are one now; u undoes it.')
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
async function remove(): Promise<void> {
  try {
    await edit(`Delete step ${step.value!.title}`, [{ section: 'steps', ref: props.stepRef, delete: true }])
    panel.close()
    notices.say('The step is gone; u undoes it.')
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <template v-if="step">
    <h2><EditCell label="What to do" :value="step.title" :save="store('Title', ['title'])" /></h2>
    <p>
      <v-btn size="small" variant="flat" color="primary" @click="router.push(`/builds/${id}/build/bench/${step.ref}`)"
        >To the bench</v-btn
      >
    </p>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    <dl class="facts">
      <dt>Section</dt>
      <dd><EditCell label="Section" :value="step.section" :save="store('Section', ['section'])" /></dd>
      <dt>Place in the order</dt>
      <dd>
        <EditCell figure label="Place in the order" :value="step.position" :save="store('Place', ['position'])" />
      </dd>
      <dt>Guide time</dt>
      <dd>
        <EditCell figure label="Guide time" :value="step.guide" unit="h" :save="store('Guide time', ['guide'])" />
      </dd>
      <dt>Tools, with commas</dt>
      <dd><EditCell label="Tools" :value="(step.tools ?? []).join(', ')" :save="storeList('Tools', 'tools')" /></dd>
    </dl>
    <dl class="facts">
      <dt>Cannot be taken back</dt>
      <dd>
        <EditCell
          label="What of it cannot be taken back"
          :value="step.act"
          :options="(catalogue?.acts ?? []).map((key) => ({ value: key, title: words(key) }))"
          placeholder="nothing"
          :save="store('Act', ['act'])"
        />
      </dd>
      <dt>Sets for</dt>
      <dd>
        <EditCell
          figure
          label="Glue or paint sets for"
          :value="step.sets"
          unit="h"
          :save="store('Setting', ['sets'])"
        />
      </dd>
    </dl>
    <p class="small flags">
      <label
        ><input
          type="checkbox"
          :checked="step.optional === true"
          @change="change('May be left out', 'optional', step.optional ? null : true)"
        />
        may be left out</label
      >
      <label
        ><input
          type="checkbox"
          :checked="step.energises === true"
          @change="change('Power', 'energises', step.energises ? null : true)"
        />
        power is switched on here</label
      >
    </p>
    <h3>Guessed at it</h3>
    <ul>
      <li v-for="(guess, i) in step.guesses" :key="i">
        {{ guess.what }}
        <EditCell
          label="Step that shows whether it was right"
          :value="guess.settled_by"
          :options="(build?.steps ?? []).map((one) => ({ value: one.ref, title: `shows at: ${one.title}` }))"
          placeholder="shows at …"
          :save="store('Where a guess shows', ['guesses', i, 'settled_by'])"
        />
        <EditCell
          label="What it turned out to be"
          :value="guess.settled"
          placeholder="not known yet"
          :save="store('How a guess turned out', ['guesses', i, 'settled'])"
        />
      </li>
    </ul>
    <h3>Comes after</h3>
    <ul>
      <li v-for="before in step.after" :key="before">
        {{ titleOf(before) }}
        <button
          type="button"
          class="plain link small"
          :aria-label="`remove what it comes after: ${titleOf(before)}`"
          @click="drop('after', 'Order', before)"
        >
          remove
        </button>
      </li>
    </ul>
    <select aria-label="Add a step it comes after" :value="''" @change="add('after', 'Order', $event)">
      <option value="">Add …</option>
      <option v-for="other in others" :key="other.ref" :value="other.ref">{{ other.title }}</option>
    </select>
    <h3>Goes in now</h3>
    <ul>
      <li v-for="(count, need) in step.uses" :key="need">
        <EditCell
          figure
          :label="`Pieces of ${roleOf(String(need))}`"
          :value="count"
          :save="store('Parts', ['uses', String(need)])"
        />
        × {{ roleOf(String(need)) }}
      </li>
    </ul>
    <select aria-label="Add a part or screw that goes in" :value="''" @change="addUse">
      <option value="">Add …</option>
      <option v-for="need in needs" :key="need.ref" :value="need.ref">{{ need.role }}</option>
    </select>
    <h3>Measure</h3>
    <dl v-if="step.check" class="facts">
      <dt>What</dt>
      <dd><EditCell label="What to measure" :value="step.check.what" :save="store('Check', ['check', 'what'])" /></dd>
      <dt>Nominal</dt>
      <dd>
        <EditCell figure label="Nominal" :value="step.check.nominal" :save="store('Nominal', ['check', 'nominal'])" />
      </dd>
      <dt>Tolerance, either way</dt>
      <dd>
        <EditCell
          figure
          label="Tolerance"
          :value="step.check.tolerance"
          :save="store('Tolerance', ['check', 'tolerance'])"
        />
      </dd>
      <dt>Measured</dt>
      <dd>
        <EditCell
          figure
          label="Measured"
          :value="step.check.measured"
          :save="store('Reading', ['check', 'measured'])"
        />
      </dd>
    </dl>
    <p v-if="step.check" class="small">
      <button type="button" class="plain link" @click="change('Check', 'check', null)">nothing to measure</button>
    </p>
    <form v-else @submit.prevent="change('Check', 'check', { ...check })">
      <input v-model="check.what" aria-label="What to measure" placeholder="parallel over the travel" /><input
        v-model="check.nominal"
        aria-label="Nominal"
        placeholder="0 mm"
        size="7"
      />
      ± <input v-model="check.tolerance" aria-label="Tolerance" placeholder="0.05 mm" size="7" />
      <v-btn type="submit" size="small" color="primary" :disabled="!check.what || !check.nominal || !check.tolerance"
        >Add</v-btn
      >
    </form>
    <h3>Cautions</h3>
    <ul>
      <li v-for="caution in step.cautions" :key="caution">
        {{ words(caution) }}
        <button type="button" class="plain link small" @click="drop('cautions', 'Cautions', caution)">remove</button>
      </li>
    </ul>
    <select aria-label="Add a caution" :value="''" @change="add('cautions', 'Cautions', $event)">
      <option value="">Add …</option>
      <option
        v-for="(text, key) in catalogue?.cautions"
        :key="key"
        :value="key"
        :disabled="step.cautions?.includes(String(key))"
      >
        {{ words(String(key)) }}: {{ text }}
      </option>
    </select>
    <h3>Notes</h3>
    <EditCell long label="Notes" :value="step.notes" placeholder="none" :save="store('Notes', ['notes'])" />
    <h3>Shape</h3>
    <p v-if="moved === null">
      <button type="button" class="plain link small" @click="moved = []">Split this step in two</button>
    </p>
    <form v-else @submit.prevent="divide()">
      <input v-model="secondTitle" aria-label="What the second step does" placeholder="what the second does" />
      <label v-for="(count, need) in step.uses" :key="need" class="small block"
        ><input v-model="moved" type="checkbox" :value="String(need)" /> {{ count }} × {{ roleOf(String(need)) }} goes
        in at the second</label
      >
      <v-btn type="submit" size="small" color="primary">Split</v-btn>
      <button type="button" class="plain link small" @click="moved = null">leave it whole</button>
    </form>
    <select aria-label="Merge another step into this one" :value="''" @change="mergeWith">
      <option value="">Merge another into it …</option>
      <option v-for="other in mergeable" :key="other.ref" :value="other.ref">{{ other.title }}</option>
    </select>
    <p class="mt-5"><button type="button" class="plain link small" @click="remove()">Delete this step</button></p>
  </template>
  <p v-else class="quiet">This step is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
.block,
.flags label {
  display: block;
}
ul {
  padding-left: 18px;
  margin: 0;
  font-size: 14px;
}
input,
select {
  font: inherit;
  font-size: 13px;
  min-height: 26px;
  max-width: 100%;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 4px;
}
</style>
