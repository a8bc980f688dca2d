<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { reasonOf, type Candidate, type Comparison } from '@/api/client'
import { written } from '@/shared/decimals'
import { money, percent } from '@/shared/format'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { useDecide } from '@/shared/useDecide'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import CandidatePicker from './CandidatePicker.vue'
import HelpWord from '@/shared/HelpWord.vue'

/** The candidates of one need side by side, each judged in the build as it stands. */
const route = useRoute()
const router = useRouter()
const { id, needs } = useBuild()
const { set } = useEdit()
const decide = useDecide()
const { data: catalogue } = useCatalogue()
const panel = usePanel()
const notices = useNotices()
const words = ref('')
const picking = ref(false)
const weighing = ref(false)
const taking = ref<Candidate | null>(null)
const why = ref('')
const reason = ref('')

const ranked = computed(() => {
  const wanted = words.value.toLowerCase()

  return [...needs.value.values()]
    .filter((need) => need.role.toLowerCase().includes(wanted))
    .sort(
      (a, b) =>
        ((b.candidates ?? []).length > 1 ? 1 : 0) - ((a.candidates ?? []).length > 1 ? 1 : 0) ||
        a.role.localeCompare(b.role),
    )
})
const at = computed(
  () => needs.value.get(String(route.params.need ?? '')) ?? (route.params.need ? undefined : ranked.value[0]),
)
const {
  data: sums,
  isError,
  error,
} = useDerived<Comparison>('comparison', () => (at.value === undefined ? '' : `needs/${at.value.ref}/comparison`))
const shown = computed(() => (sums.value?.need === at.value?.ref ? sums.value : undefined))
const columns = computed(() =>
  (shown.value?.order ?? []).map((part) => ({
    index: shown.value!.candidates.findIndex((one) => one.part === part),
    candidate: shown.value!.candidates.find((one) => one.part === part)!,
  })),
)
const whole = ref(false)
const isAlike = (row: Comparison['rows'][number]) =>
  columns.value.length > 1 && new Set(columns.value.map(({ index }) => row.cells[index]?.value ?? '')).size === 1
const alike = computed(() => (shown.value?.rows ?? []).filter(isAlike).length)
/** Lines that differ; those that are the same in all candidates decide nothing. */
const rows = computed(() => (shown.value?.rows ?? []).filter((row) => whole.value || !isAlike(row)))
const family = computed(() => catalogue.value?.families.find((one) => one.key === at.value?.family))
const extra = [
  { key: 'landed', label: 'Landed, all pieces' },
  { key: 'lead_days', label: 'Wait' },
  { key: 'mass', label: 'Mass' },
  { key: 'watts', label: 'Watts' },
] as const
const rank: Record<string, number> = { danger: 0, fails: 1, tight: 2, unproven: 3, holds: 4 }
const worse = (change: Candidate['changes'][number]) => change.from === null || rank[change.to]! < rank[change.from]!
const weightOf = (key: string) => at.value?.weights?.[key] ?? 0
const evidenceLabel = (key: string) => catalogue.value?.evidence.find((one) => one.key === key)?.label ?? key
watch(
  () => at.value?.ref,
  () => {
    taking.value = null
    reason.value = ''
  },
)

function extraOf(candidate: Candidate, key: (typeof extra)[number]['key']): string {
  const value = candidate[key]
  if (value === null) return '–'

  return key === 'landed'
    ? money(String(value), shown.value!.currency)
    : key === 'lead_days'
      ? `${value} days`
      : written(String(value))
}

async function weigh(key: string, weight: number): Promise<void> {
  const weights = { ...at.value!.weights, [key]: weight }
  const kept = Object.fromEntries(Object.entries(weights).filter(([, one]) => one > 0))
  try {
    await set(
      'Weights',
      'needs',
      at.value!.ref,
      ['weights'],
      at.value!.weights ?? null,
      Object.keys(kept).length ? kept : null,
    )
  } catch (problem) {
    notices.problem(problem)
  }
}

/** Choosing keeps the reason, the rejected and the facts of the day, so that a change opens the question again. */
async function take(): Promise<void> {
  const need = at.value!
  const chosen = taking.value!
  try {
    await decide(
      `Choose ${chosen.name} for ${need.role}`,
      {
        about: 'part',
        need: need.ref,
        question: `Which part for ${need.role}?`,
        choice: chosen.part,
        ...(why.value.trim() === '' ? {} : { reason: why.value }),
        facts: chosen.facts,
        rejected: shown
          .value!.candidates.filter((one) => one.part !== chosen.part)
          .map((one) => ({ what: one.name, ...(one.barred ? { why: one.own[0]?.headline.slice(0, 400) } : {}) })),
      },
      [
        {
          section: 'needs',
          ref: need.ref,
          set: [
            { path: ['choice'], was: need.choice ?? null, to: chosen.part },
            { path: ['reason'], to: why.value.trim() || null },
          ],
        },
      ],
    )
    taking.value = null
    why.value = ''
    reason.value = ''
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}

async function drop(candidate: Candidate): Promise<void> {
  try {
    await set(
      `${candidate.name} is no candidate`,
      'needs',
      at.value!.ref,
      ['candidates'],
      at.value!.candidates ?? null,
      (at.value!.candidates ?? []).filter((one) => one !== candidate.part),
    )
  } catch (problem) {
    notices.problem(problem)
  }
}
</script>

<template>
  <div class="compare">
    <nav class="needs" aria-label="Needs">
      <input
        v-model="words"
        class="field"
        type="search"
        aria-label="Show only needs with these words"
        placeholder="Show only …"
      />
      <button
        v-for="need in ranked"
        :key="need.ref"
        type="button"
        class="plain need"
        :class="{ here: need.ref === at?.ref }"
        :aria-current="need.ref === at?.ref ? 'true' : undefined"
        @click="router.push(`/builds/${id}/choose/compare/${need.ref}`)"
      >
        <span>{{ need.role }}</span><span class="figure quiet">{{ (need.candidates ?? []).length }}</span>
      </button>
      <p v-if="ranked.length === 0" class="quiet small">No need yet.</p>
    </nav>
    <section class="view body">
      <p v-if="at === undefined" class="empty">
        {{
          route.params.need
            ? 'This need is not in the build any more.'
            : 'A build without needs has nothing to compare. Add parts first, or bring a list.'
        }}
      </p>
      <p v-else-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
      <p v-else-if="!shown" class="quiet" role="status">Judging the build with each candidate …</p>
      <template v-else>
        <div class="view-head">
          <h1>{{ shown.role }}</h1>
          <span class="quiet"
            >{{ shown.quantity }} × {{ family?.title }}; each candidate is judged in this build as it stands, and
            nothing is changed</span
          >
          <span class="push"
            ><v-btn color="primary" @click="picking = true">Add a candidate</v-btn
            ><v-btn :aria-pressed="weighing" @click="weighing = !weighing">{{
              weighing ? 'Hide the weights' : 'Give each line a weight'
            }}</v-btn></span
          >
        </div>
        <form v-if="taking" class="fields aside" @submit.prevent="take()">
          <label for="compare-why"
            >Why {{ taking.name }}?<span v-if="at?.choice === undefined" class="quiet"> (may stay empty)</span></label
          ><input id="compare-why" v-model="why" class="field" size="48" autofocus />
          <v-btn
            type="submit"
            size="small"
            variant="flat"
            color="primary"
            :disabled="at?.choice !== undefined && why.trim() === ''"
            >Choose it</v-btn
          ><v-btn size="small" @click="taking = null">Cancel</v-btn>
          <span v-if="taking.barred" class="fails small">{{ taking.own[0]?.headline }}</span><span
            v-if="reason"
            class="danger small"
            role="alert"
            >{{ reason }}</span
          >
        </form>
        <p v-if="columns.length === 0" class="empty">
          No candidate yet. Take one from the library, or another part of this build.
        </p>
        <div v-else class="wide">
          <table class="ledger">
            <thead>
              <tr>
                <th class="first" />
                <th v-for="{ candidate } in columns" :key="candidate.part" class="head">
                  <strong class="name">{{ candidate.name }}</strong>
                  <span class="block small"
                    ><template v-if="candidate.chosen"><span class="live">chosen now</span></template
                    ><template v-if="candidate.example"> an example, not to order by</template></span
                  >
                  <span class="block acts">
                    <v-btn
                      v-if="!candidate.chosen"
                      size="small"
                      color="primary"
                      variant="flat"
                      :disabled="candidate.blocked.length > 0"
                      :aria-label="`Choose ${candidate.name}`"
                      @click="taking = candidate"
                      >Choose</v-btn
                    ><button
                      v-if="!candidate.chosen"
                      type="button"
                      class="plain link small ml-3"
                      @click="drop(candidate)"
                    >
                      Remove from the list</button
                    ><button
                      v-else
                      type="button"
                      class="plain link small"
                      @click="panel.show({ kind: 'part', ref: shown.need })"
                    >
                      Its sheet
                    </button>
                  </span>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>Worst verdict on it</td>
                <td v-for="{ candidate } in columns" :key="candidate.part">
                  <VerdictMark v-if="candidate.worst" :verdict="candidate.worst" word /><span v-else class="quiet"
                    >no check speaks of it</span
                  ><span v-if="candidate.own[0] && candidate.worst !== 'holds'" class="small quiet block"
                    ><HelpWord :check="candidate.own[0].check">{{ candidate.own[0].check }}</HelpWord
                    >: {{ candidate.own[0].headline }}</span
                  >
                </td>
              </tr>
              <tr class="tall">
                <td>What turns in the build with it</td>
                <td v-for="{ candidate } in columns" :key="candidate.part">
                  <span v-if="candidate.chosen" class="quiet small">as the build stands</span
                  ><span v-else-if="candidate.changes.length === 0" class="quiet small">no verdict</span>
                  <span
                    v-for="change in candidate.changes.slice(0, 5)"
                    :key="change.key"
                    class="block change"
                    :title="change.headline"
                    ><VerdictMark :verdict="change.to" :size="12" />
                    <span :class="worse(change) ? change.to : ''">{{ change.to }}</span>
                    <span class="quiet">
                      {{ change.from ? `was ${change.from}` : 'new' }}:
                      <HelpWord :check="change.key.split('/')[0]">{{ change.key.split('/')[0] }}</HelpWord>
                      {{ change.subject }}</span
                    ></span
                  >
                  <span v-if="candidate.changes.length > 5" class="quiet small"
                    >and {{ candidate.changes.length - 5 }} more</span
                  >
                </td>
              </tr>
              <tr
                v-if="columns.some(({ candidate }) => candidate.forces.length + candidate.blocked.length > 0)"
                class="tall"
              >
                <td>What it forces elsewhere</td>
                <td v-for="{ candidate } in columns" :key="candidate.part" class="small">
                  <span v-for="one in candidate.blocked" :key="one" class="block fails">{{ one }}</span><span
                    v-for="one in candidate.forces"
                    :key="one"
                    class="block"
                    >{{ one }}</span
                  >
                </td>
              </tr>
              <tr
                v-for="row in extra.filter((one) => columns.some(({ candidate }) => candidate[one.key] !== null))"
                :key="row.key"
              >
                <td>
                  {{ row.label
                  }}<select
                    v-if="weighing"
                    class="field weight"
                    :aria-label="`Weight of ${row.label}`"
                    :value="weightOf(row.key)"
                    @change="weigh(row.key, Number(($event.target as HTMLSelectElement).value))"
                  >
                    <option v-for="w in 6" :key="w" :value="w - 1">{{ w - 1 }}</option>
                  </select>
                </td>
                <td v-for="{ candidate } in columns" :key="candidate.part" class="figure">
                  {{ extraOf(candidate, row.key)
                  }}<span v-if="row.key === 'landed' && candidate.supplier" class="quiet small block"
                    >{{ candidate.supplier }}, {{ candidate.price_date }}</span
                  >
                </td>
              </tr>
              <tr v-for="row in rows" :key="row.key">
                <td>
                  {{ row.label
                  }}<select
                    v-if="weighing && row.better"
                    class="field weight"
                    :aria-label="`Weight of ${row.label}`"
                    :value="weightOf(row.key)"
                    @change="weigh(row.key, Number(($event.target as HTMLSelectElement).value))"
                  >
                    <option v-for="w in 6" :key="w" :value="w - 1">{{ w - 1 }}</option>
                  </select>
                </td>
                <td v-for="{ candidate, index } in columns" :key="candidate.part">
                  <template v-if="row.cells[index]">
                    <span class="figure" :class="{ best: row.best.includes(candidate.part) }">{{
                      row.cells[index]!.value
                    }}</span><span v-if="row.cells[index]!.alike" class="quiet small figure ml-2">{{
                      row.cells[index]!.alike
                    }}</span
                    ><span v-if="row.best.includes(candidate.part)" class="quiet small"> best</span
                    ><span v-else-if="row.worst.includes(candidate.part)" class="quiet small"> worst</span>
                    <button
                      v-if="row.cells[index]!.verdict && row.cells[index]!.verdict !== 'holds'"
                      type="button"
                      class="plain mark"
                      :title="row.cells[index]!.says ?? ''"
                      :aria-label="`${row.cells[index]!.verdict}: ${row.cells[index]!.says}`"
                      @click="candidate.chosen && panel.show({ kind: 'working', key: row.cells[index]!.finding! })"
                    >
                      <VerdictMark :verdict="row.cells[index]!.verdict!" :size="12" />
                    </button>
                    <span
                      class="small block"
                      :class="['listing', 'assumed'].includes(row.cells[index]!.evidence) ? 'unproven' : 'quiet'"
                      >{{ evidenceLabel(row.cells[index]!.evidence) }}</span
                    >
                  </template>
                  <span v-else class="quiet">not stated</span>
                </td>
              </tr>
              <tr v-if="alike > 0">
                <td :colspan="columns.length + 1">
                  <button type="button" class="plain link small" :aria-expanded="whole" @click="whole = !whole">
                    {{
                      whole
                        ? 'Hide what is the same in all'
                        : `${alike} more ${alike === 1 ? 'line is' : 'lines are'} the same in all`
                    }}
                  </button>
                </td>
              </tr>
              <tr v-for="ratio in shown.ratios" :key="ratio.label">
                <td>{{ ratio.label }}</td>
                <td v-for="{ candidate, index } in columns" :key="candidate.part" class="figure">
                  {{ ratio.values[index] ?? '–' }}
                </td>
              </tr>
              <tr v-if="Object.keys(shown.weights).length">
                <td>By your weights</td>
                <td v-for="{ candidate } in columns" :key="candidate.part" class="figure">
                  {{ percent(candidate.score)
                  }}<span v-if="candidate.barred" class="fails small block"
                    >comes after all that do, whatever it scores</span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </section>
    <v-dialog v-model="picking" max-width="760"
      ><CandidatePicker v-if="picking && at" :need="at" @done="picking = false"
    /></v-dialog>
  </div>
</template>

<style scoped>
.compare {
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr);
  height: 100%;
}
.needs {
  border-right: 1px solid var(--rule);
  padding: 12px 0;
  overflow: auto;
}
.needs .field {
  margin: 0 12px 8px;
  width: calc(100% - 24px);
}
.need {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 4px 14px;
  font-size: 14px;
  text-align: left;
}
.need.here {
  box-shadow: inset 3px 0 0 var(--live);
  background: color-mix(in srgb, var(--live) 8%, transparent);
}
.need:hover {
  color: var(--live);
}
.body {
  overflow: auto;
}
.wide {
  overflow-x: auto;
}
.first {
  min-width: 170px;
}
.head {
  min-width: 190px;
  max-width: 300px;
  white-space: normal !important;
  vertical-align: bottom;
}
.name {
  color: var(--ink);
  font-family: var(--figures);
  font-weight: 560;
}
.acts {
  margin: 4px 0 6px;
  font-weight: 400;
}
.block {
  display: block;
}
td {
  vertical-align: top;
  padding-top: 5px !important;
  max-width: 320px;
}
.change {
  font-size: 13.5px;
}
.best {
  font-weight: 640;
}
.mark {
  margin-left: 6px;
  vertical-align: -1px;
}
.weight {
  margin-left: 8px;
  height: 24px;
}
@media (max-width: 700px) {
  .first {
    min-width: 96px;
    max-width: 110px;
  }
  .head,
  .wide td {
    min-width: 0;
    max-width: 200px;
    overflow-wrap: anywhere;
    white-space: normal;
  }
  .wide .figure {
    white-space: normal;
  }
}
@media (max-width: 800px) {
  .compare {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
  .needs {
    max-height: 180px;
    border-right: 0;
    border-bottom: 1px solid var(--rule);
  }
}
</style>
