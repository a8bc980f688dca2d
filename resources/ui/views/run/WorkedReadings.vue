<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { api, Problem, reasonOf, type AlignmentOutcome, type Alignments, type BuildDocument } from '@/api/client'
import { written } from '@/shared/decimals'
import { freshRef } from '@/shared/refs'
import { onDay } from '@/shared/format'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'
import { me, seconds } from './useReadings'

/** A few readings typed as they were taken, and what they come to: what makes a machine straight, or tunes it. */
const props = defineProps<{ group: 'straight' | 'tune' }>()
const LinePlot = defineAsyncComponent(() => import('./LinePlot.vue'))
const { id, document: build, demo } = useBuild()
const { edit } = useEdit()
const { busy, reason, act } = useAct()
const { data, isError, error } = useDerived<Alignments>('alignments', () => 'alignments')
type Method = Alignments['methods'][number]
type Done = NonNullable<BuildDocument['alignments']>[number]
const methods = computed(() => (data.value?.methods ?? []).filter((one) => one.group === props.group))
const kind = ref('')
const method = computed<Method | undefined>(() => data.value?.methods.find((one) => one.key === kind.value))
const given = ref<Record<string, string>>({})
const more = ref({ axis: '', instrument: '', holder: '', note: '' })
const outcome = ref<AlignmentOutcome | null>(null)
const wrong = ref<Record<string, string>>({})
watch(kind, () => {
  given.value = {}
  outcome.value = null
  wrong.value = {}
})
const done = computed(() => {
  const worked = new Map((data.value?.done ?? []).map((one) => [one.ref, one]))

  return [...(build.value?.alignments ?? [])]
    .filter((entry) => methods.value.some((one) => one.key === entry.kind))
    .sort((a, b) => (b.at ?? 0) - (a.at ?? 0))
    .map((entry) => ({ entry, ...worked.get(entry.ref) }))
})
const titleOf = (key: string) => data.value?.methods.find((one) => one.key === key)?.title ?? key
const axisOf = (entry: Done) => build.value?.axes?.find((axis) => axis.ref === entry.axis)?.name
const figure = (value: number, unit: string) =>
  `${written(String(Number(value.toFixed(Math.abs(value) < 1 ? 4 : 3))))}${unit ? ` ${unit}` : ''}`
/** The reason of each field that was refused, under it. */
function refused(problem: unknown): void {
  if (!(problem instanceof Problem) || problem.body.errors === undefined) throw problem
  wrong.value = Object.fromEntries(
    problem.body.errors.map((one) => [one.pointer.split(/[/.]/).at(-1) ?? '', one.reason]),
  )
}
const work = () =>
  act(async () => {
    wrong.value = {}
    try {
      outcome.value = await api.post<AlignmentOutcome>(`/api/builds/${id.value}/alignments`, {
        kind: kind.value,
        given: given.value,
      })
    } catch (problem) {
      outcome.value = null
      refused(problem)
    }
  })
const simulate = () =>
  act(async () => {
    const { given: read } = await api.get<{ given: Record<string, string> }>(
      `/api/builds/${id.value}/simulated-alignments/${kind.value}`,
    )
    given.value = { ...given.value, ...read }
    more.value.instrument = 'simulated'
  })
const keep = () =>
  act(async () => {
    wrong.value = {}
    const by = await me()
    try {
      await edit(`${method.value!.title} measured`, [
        {
          section: 'alignments',
          create: {
            ref: freshRef('A', build.value?.alignments, false),
            kind: kind.value,
            given: Object.fromEntries(Object.entries(given.value).filter(([, text]) => text.trim() !== '')),
            ...Object.fromEntries(Object.entries(more.value).filter(([, text]) => text.trim() !== '')),
            ...(by === undefined ? {} : { by }),
            at: seconds(),
          },
        },
      ])
      kind.value = ''
      more.value = { axis: '', instrument: '', holder: '', note: '' }
    } catch (problem) {
      refused(problem)
    }
  })
const remove = (entry: Done) =>
  act(() => edit(`Take away ${titleOf(entry.kind)}`, [{ section: 'alignments', ref: entry.ref, delete: true }]))
/** A magnet does not hold on aluminium. */
const slips = computed(() => /magnet/i.test(more.value.holder))
const open = ref<string | null>(null)
</script>

<template>
  <div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="data">
      <select v-model="kind" class="field" aria-label="What was measured">
        <option value="">What was measured …</option>
        <option v-for="one in methods" :key="one.key" :value="one.key">{{ one.title }}</option>
      </select>
      <form v-if="method" class="given asks" @submit.prevent="work()">
        <p class="small">{{ method.about }}</p>
        <div v-for="ask in method.asks" :key="ask.key" class="ask">
          <label :for="`ask-${ask.key}`"
            >{{ ask.label }}<span v-if="!ask.needed" class="quiet small"> if known</span></label
          >
          <input
            :id="`ask-${ask.key}`"
            v-model="given[ask.key]"
            class="field figure"
            :class="{ row: ask.row }"
            :placeholder="ask.example"
            :aria-invalid="wrong[ask.key] !== undefined"
            :aria-describedby="wrong[ask.key] ? `wrong-${ask.key}` : undefined"
          />
          <span v-if="wrong[ask.key]" :id="`wrong-${ask.key}`" class="danger small">{{ wrong[ask.key] }}</span>
        </div>
        <div class="fields">
          <select v-model="more.axis" class="field" aria-label="Axis it is of">
            <option value="">of no axis</option>
            <option v-for="axis in build?.axes" :key="axis.ref" :value="axis.ref">{{ axis.name }}</option>
          </select>
          <input v-model="more.instrument" class="field" aria-label="Instrument" placeholder="instrument" />
          <input v-model="more.holder" class="field" aria-label="What holds it" placeholder="what holds it" />
          <input v-model="more.note" class="field" aria-label="Note" placeholder="note" />
        </div>
        <p v-if="slips" class="tight small">
          A magnet does not hold on aluminium or stone: clamp it, or screw it down.
        </p>
        <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
        <button v-if="demo" type="button" class="plain link small sim" @click="simulate()">simulated instrument</button>
        <v-btn type="submit" variant="outlined" :loading="busy">Work it out</v-btn>
        <v-btn class="ml-3" color="primary" variant="flat" :disabled="outcome === null" @click="keep()">Keep it</v-btn>
      </form>
      <section v-if="outcome" class="outcome" aria-label="What it comes to">
        <dl class="across">
          <div v-for="one in outcome.figures" :key="one.key">
            <dt>{{ one.label }}</dt>
            <dd class="figure">
              {{ figure(one.value, one.unit)
              }}<span v-if="one.uncertainty" class="quiet"> ± {{ figure(one.uncertainty, '') }}</span>
            </dd>
          </div>
        </dl>
        <p v-if="outcome.verdict">
          <VerdictMark :verdict="outcome.verdict" word /> against a limit of
          <span class="figure">{{ figure(outcome.limit!, 'mm') }}</span>
        </p>
        <ul>
          <li v-for="line in outcome.says" :key="line">{{ line }}</li>
        </ul>
        <LinePlot
          v-if="outcome.lines.length"
          :lines="outcome.lines"
          y="mm"
          :label="`${outcome.lines[0]!.name}, drawn; the figures above give the same`"
        />
        <p v-for="line in outcome.working" :key="line" class="quiet small figure">{{ line }}</p>
      </section>
      <h2>Measured so far</h2>
      <p v-if="done.length === 0" class="empty">
        <slot name="empty">Nothing was measured yet.</slot>
      </p>
      <table v-else class="ledger stack">
        <thead>
          <tr>
            <th>What</th>
            <th class="wide-only">When, by</th>
            <th class="num">Comes to</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="one in done" :key="one.entry.ref">
            <tr>
              <td>
                <button
                  type="button"
                  class="plain link"
                  :aria-expanded="open === one.entry.ref"
                  @click="open = open === one.entry.ref ? null : one.entry.ref"
                >
                  {{ titleOf(one.entry.kind) }}
                </button>
                <span v-if="axisOf(one.entry)" class="quiet small"> {{ axisOf(one.entry) }}</span>
                <span v-if="one.entry.note" class="quiet small block">{{ one.entry.note }}</span>
              </td>
              <td class="small quiet wide-only">{{ onDay(one.entry.at) }} {{ one.entry.by }}</td>
              <td class="num figure">
                <template v-if="one.outcome">{{
                  figure(one.outcome.figures[0]!.value, one.outcome.figures[0]!.unit)
                }}</template>
              </td>
              <td>
                <VerdictMark v-if="one.outcome?.verdict" :verdict="one.outcome.verdict" word />
                <span v-else class="quiet small">{{ one.trouble ?? 'no limit given' }}</span>
              </td>
            </tr>
            <tr v-if="open === one.entry.ref && one.outcome">
              <td colspan="4">
                <ul>
                  <li v-for="line in one.outcome.says" :key="line">{{ line }}</li>
                </ul>
                <LinePlot
                  v-if="one.outcome.lines.length"
                  :lines="one.outcome.lines"
                  y="mm"
                  :label="one.outcome.lines[0]!.name"
                />
                <p v-for="line in one.outcome.working" :key="line" class="quiet small figure">{{ line }}</p>
                <p v-for="(text, key) in one.entry.given" :key="key" class="small">
                  {{ key }}: <span class="figure">{{ text }}</span>
                </p>
                <p class="small quiet">
                  {{ [one.entry.instrument, one.entry.holder].filter(Boolean).join(', held by ') }}
                  <button type="button" class="plain link" @click="remove(one.entry)">take it away</button>
                </p>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
.given {
  margin: 8px 0;
  max-width: 760px;
}
.ask {
  display: grid;
  grid-template-columns: 260px 1fr;
  gap: 2px 12px;
  align-items: center;
  margin: 4px 0;
}
.ask .danger {
  grid-column: 2;
}
.ask input {
  max-width: 180px;
  height: 34px;
}
.ask input.row {
  max-width: none;
}
.outcome {
  margin: 14px 0;
  padding: 4px 16px;
  border-left: 3px solid var(--live);
}
.block {
  display: block;
}
.sim {
  margin-right: 14px;
}
ul {
  padding-left: 20px;
}
@media (max-width: 700px) {
  .ask {
    grid-template-columns: 1fr;
  }
  .ask .danger {
    grid-column: 1;
  }
  .ask input {
    max-width: none;
    height: 44px;
  }
}
</style>
