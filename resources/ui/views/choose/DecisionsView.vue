<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Decision } from '@/api/client'
import { day } from '@/shared/format'
import { freeRef, refFrom } from '@/shared/refs'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'

/** Every decision of the build: what is open, what was decided and why, and what a changed fact has opened again. */
const { id, document: build, overview, parts } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const panel = usePanel()
const question = ref('')
const reason = ref('')
const states = computed(() => new Map((overview.value?.decisions ?? []).map((state) => [state.ref, state])))
const order = { reopened: 0, open: 1, made: 2 } as const
const rows = computed(() =>
  (build.value?.decisions ?? [])
    .map((decision) => ({
      decision,
      state: states.value.get(decision.ref)?.state ?? 'open',
      changed: states.value.get(decision.ref)?.changed ?? [],
    }))
    .sort((a, b) => order[a.state] - order[b.state] || (b.decision.date ?? '').localeCompare(a.decision.date ?? '')),
)
const undecided = computed(() =>
  (build.value?.needs ?? []).filter(
    (need) =>
      (need.candidates ?? []).length > 1 && !(build.value?.decisions ?? []).some((one) => one.need === need.ref),
  ),
)

function choiceOf(decision: Decision): string {
  const taken = decision.choice ?? ''
  if (decision.about === 'part') return parts.value.get(taken)?.name ?? taken
  if (decision.about === 'route') return build.value?.routes?.find((route) => route.ref === taken)?.name ?? taken

  return taken
}

async function ask(): Promise<void> {
  try {
    const ref = freeRef(`d-${refFrom(question.value, 'question')}`.slice(0, 40), (one) => states.value.has(one))
    await edit(`Ask: ${question.value}`, [
      { section: 'decisions', create: { ref, question: question.value, about: 'other' } },
    ])
    question.value = ''
    reason.value = ''
    panel.show({ kind: 'decision', ref })
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
const needAsk = (need: string, role: string) =>
  edit(`Ask: which ${role}?`, [
    {
      section: 'decisions',
      create: {
        ref: freeRef(`d-${need}`.slice(0, 60), (one) => states.value.has(one)),
        question: `Which part for ${role}?`,
        about: 'part',
        need,
      },
    },
  ])
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Decisions</h1>
      <span class="quiet"
        >{{ rows.filter((row) => row.state !== 'made').length }} wait,
        {{ rows.filter((row) => row.state === 'made').length }} stand</span
      >
    </div>
    <p v-if="rows.length === 0" class="empty">
      Nothing is decided yet. Compare the candidates of a need and choose one: the choice, its reason and the facts it
      rests on are kept here, and it opens again when one of them changes for the worse.
      <FirstAction path="choose/compare">Compare candidates</FirstAction>
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>State</th>
          <th>Question</th>
          <th>Chosen</th>
          <th>Why</th>
          <th class="wide-only">Opinions</th>
          <th class="num wide-only">Decided</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.decision.ref"
          :class="{ picked: panel.open?.kind === 'decision' && panel.open.ref === row.decision.ref }"
          @click="panel.show({ kind: 'decision', ref: row.decision.ref })"
        >
          <td :class="{ fails: row.state === 'reopened', quiet: row.state === 'made' }">
            {{ row.state === 'reopened' ? 'open again' : row.state === 'made' ? 'stands' : 'open' }}
          </td>
          <td>
            <button type="button" class="plain" @click.stop="panel.show({ kind: 'decision', ref: row.decision.ref })">
              {{ row.decision.question }}
            </button>
            <span v-for="change in row.changed.slice(0, 2)" :key="change.fact" class="fails small block"
              >{{ change.fact }}: {{ change.was ?? 'nothing' }} → {{ change.is ?? 'nothing' }}</span
            >
          </td>
          <td>{{ choiceOf(row.decision) || '–' }}</td>
          <td class="small why">{{ row.decision.reason }}</td>
          <td class="small wide-only">{{ (row.decision.opinions ?? []).length || '' }}</td>
          <td class="num small quiet wide-only">
            {{ row.decision.date ? day(row.decision.date) : ''
            }}<span v-if="row.decision.who" class="block">{{ row.decision.who }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="fields" @submit.prevent="ask()">
      <input
        v-model="question"
        class="field"
        aria-label="A further question"
        placeholder="A further question"
        size="34"
      /><v-btn type="submit" size="small" :disabled="question.trim() === ''">Add this question</v-btn
      ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    </form>
    <template v-if="undecided.length">
      <h2>Candidates without a decision</h2>
      <p class="small">
        <template v-for="(need, i) in undecided" :key="need.ref"
          ><template v-if="i"> · </template
          ><router-link class="link" :to="`/builds/${id}/choose/compare/${need.ref}`">{{ need.role }}</router-link>
          <button
            type="button"
            class="plain quiet"
            :aria-label="`record the decision: ${need.role}`"
            @click="needAsk(need.ref, need.role)"
          >
            record the decision
          </button></template
        >
      </p>
    </template>
    <p class="quiet small">Ask what the speaker gains by it: {{ catalogue?.interests.join(', ') }}.</p>
  </div>
</template>

<style scoped>
td {
  padding-top: 6px;
  padding-bottom: 5px;
  vertical-align: top;
}
.block {
  display: block;
}
.why {
  max-width: 280px;
}
h2 {
  margin: 20px 0 4px;
}
</style>
