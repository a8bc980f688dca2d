<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, reasonOf, type Comparison, type Routes } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { day, today } from '@/shared/format'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'

const props = defineProps<{ decisionRef: string }>()
const { id, document: build, overview, parts, needs } = useBuild()
const { set, edit } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const panel = usePanel()
const fresh = ref({ about: '', says: '', interest: 'another builder', who: '' })
const reason = ref('')
const decision = computed(() => build.value?.decisions?.find((one) => one.ref === props.decisionRef))
const state = computed(() => overview.value?.decisions.find((one) => one.ref === props.decisionRef))
const school = computed(() => catalogue.value?.schools.find((one) => one.key === decision.value?.school))
const choices = computed(() => {
  const held = decision.value
  if (held?.about === 'part')
    return (needs.value.get(held.need ?? '')?.candidates ?? []).map((ref) => ({
      value: ref,
      title: parts.value.get(ref)?.name ?? ref,
    }))
  if (held?.about === 'route')
    return (build.value?.routes ?? []).map((route) => ({ value: route.ref, title: route.name }))
  if (held?.about === 'school')
    return Object.keys(school.value?.sides ?? {}).map((side) => ({ value: side, title: side }))

  return undefined
})
const save = (what: string, path: string) => (text: string, was: unknown) =>
  set(`${what}: ${decision.value!.question}`, 'decisions', props.decisionRef, [path], was, text === '' ? null : text)

/** What stands today for what was chosen, so that a later change is seen. */
async function factsOf(): Promise<Record<string, string> | null> {
  const held = decision.value!
  if (held.about === 'part')
    return (
      (await api.get<Comparison>(`/api/builds/${id.value}/needs/${held.need}/comparison`)).candidates.find(
        (one) => one.part === held.choice,
      )?.facts ?? null
    )
  if (held.about === 'route')
    return (await api.get<Routes>(`/api/builds/${id.value}/routes`)).facts as Record<string, string>

  return null
}

async function stands(): Promise<void> {
  reason.value = ''
  try {
    const held = decision.value!
    const need = needs.value.get(held.need ?? '')
    await edit(`Decide: ${held.question}`, [
      ...(held.about === 'part' && need !== undefined && need.choice !== held.choice
        ? [{ section: 'needs', ref: need.ref, set: [{ path: ['choice'], was: need.choice ?? null, to: held.choice }] }]
        : []),
      {
        section: 'decisions',
        ref: held.ref,
        set: [
          { path: ['state'], to: 'made' },
          { path: ['date'], to: today() },
        ],
      },
    ])
    // The facts are those of the build with this choice in it.
    const facts = await factsOf()
    if (facts !== null)
      await set(`Facts of: ${held.question}`, 'decisions', held.ref, ['facts'], held.facts ?? null, facts)
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

async function note(): Promise<void> {
  try {
    const { who, ...said } = fresh.value
    await set('An opinion', 'decisions', props.decisionRef, ['opinions'], decision.value!.opinions ?? null, [
      ...(decision.value!.opinions ?? []),
      { ...said, ...(who === '' ? {} : { who }), date: today() },
    ])
    fresh.value = { about: '', says: '', interest: 'another builder', who: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

async function remove(): Promise<void> {
  try {
    await edit('Delete a decision', [{ section: 'decisions', ref: props.decisionRef, delete: true }])
    panel.close()
  } catch (error) {
    notices.problem(error)
  }
}
</script>

<template>
  <template v-if="decision">
    <h2><EditCell long label="Question" :value="decision.question" :save="save('Question', 'question')" /></h2>
    <p v-if="state?.state === 'reopened'" class="fails">Open again, since what it rested on has changed:</p>
    <table v-if="state?.changed.length" class="ledger">
      <tbody>
        <tr v-for="change in state.changed" :key="change.fact">
          <td>{{ change.fact }}</td>
          <td class="quiet">{{ change.was ?? 'nothing' }}</td>
          <td>→ {{ change.is ?? 'nothing' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="school" class="aside small">
      {{ school.decides
      }}<span v-for="(says, side) in school.sides" :key="side" class="block"
        ><strong>{{ side }}</strong> {{ says }}</span
      >
    </p>
    <dl class="facts mt-3">
      <dt>Chosen</dt>
      <dd>
        <EditCell
          label="What is taken"
          :value="decision.choice"
          :options="choices"
          placeholder="nothing yet"
          :save="save('Choice', 'choice')"
        />
      </dd>
      <dt>By</dt>
      <dd><EditCell label="Who decided" :value="decision.who" placeholder="not said" :save="save('Who', 'who')" /></dd>
      <dt>On</dt>
      <dd>{{ decision.date ? day(decision.date) : '–' }}</dd>
    </dl>
    <h3>Why</h3>
    <EditCell
      long
      label="Reason"
      :value="decision.reason"
      placeholder="no reason yet"
      :save="save('Reason', 'reason')"
    />
    <p class="mt-2">
      <v-btn
        v-if="state?.state !== 'made'"
        size="small"
        variant="flat"
        color="primary"
        :disabled="!decision.choice || !decision.reason"
        @click="stands()"
        >{{ state?.state === 'reopened' ? 'It stands as it is now' : 'Decide' }}</v-btn
      >
      <router-link v-if="decision.need" class="link small ml-3" :to="`/builds/${id}/choose/compare/${decision.need}`"
        >Compare the candidates</router-link
      >
    </p>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    <template v-if="decision.rejected?.length"
      ><h3>Rejected</h3>
      <ul class="plain-list">
        <li v-for="one in decision.rejected" :key="one.what">
          {{ one.what }}<span v-if="one.why" class="quiet small block">{{ one.why }}</span>
        </li>
      </ul></template
    >
    <h3>Who says what</h3>
    <ul class="plain-list">
      <li v-for="(one, i) in decision.opinions" :key="i">
        “{{ one.says }}”
        <span class="small quiet block"
          >of {{ one.about }} ·
          <span :class="{ tight: ['seller', 'paid', 'maker', 'given the part'].includes(one.interest) }">{{
            one.interest
          }}</span><template v-if="one.who">, {{ one.who }}</template
          ><template v-if="one.date">, {{ day(one.date) }}</template
          ><template v-if="(one.reports ?? 1) > 1">, {{ one.reports }} reports</template></span
        >
      </li>
    </ul>
    <form class="opinion" @submit.prevent="note()">
      <input v-model="fresh.says" class="field" aria-label="What was said" placeholder="What was said" /><input
        v-model="fresh.about"
        class="field"
        aria-label="Of what"
        placeholder="of which part"
      />
      <select v-model="fresh.interest" class="field" aria-label="Interest of who says it">
        <option v-for="one in catalogue?.interests" :key="one">{{ one }}</option></select
      ><input v-model="fresh.who" class="field" aria-label="Who" placeholder="who" />
      <v-btn type="submit" size="small" :disabled="fresh.says === '' || fresh.about === ''">Keep it</v-btn>
    </form>
    <details v-if="Object.keys(decision.facts ?? {}).length" class="mt-3">
      <summary class="small link">What it rests on</summary>
      <dl class="facts">
        <template v-for="(fact, name) in decision.facts" :key="name"
          ><dt>{{ name }}</dt>
          <dd>{{ fact }}</dd></template
        >
      </dl>
    </details>
    <p class="mt-5"><button type="button" class="plain link small" @click="remove()">Delete this decision</button></p>
  </template>
  <p v-else class="quiet">This decision is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 16px 0 2px;
}
.block {
  display: block;
}
.plain-list {
  list-style: none;
  padding: 0;
  margin: 0;
}
.plain-list li {
  padding: 3px 0;
}
.opinion {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin-top: 8px;
}
summary {
  cursor: pointer;
  color: var(--live);
}
</style>
