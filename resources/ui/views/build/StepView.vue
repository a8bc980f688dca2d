<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf, type Documents, type FindingSummary, type LookAhead } from '@/api/client'
import { useKeys } from '@/app/useKeys'
import { written as decimal } from '@/shared/decimals'
import { isOpenFault } from '@/shared/faults'
import { clock, percent, today, words } from '@/shared/format'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'
import FaultDialog from './FaultDialog.vue'
import { useKept } from '@/offline/useKept'
import { useAwake } from './useAwake'
import { useSteps } from './useSteps'

/**
 * One step a screen, for greasy hands: what to have at hand, what must be in, what to measure, the clock, and a fault
 * one touch away.
 */
const route = useRoute()
const router = useRouter()
const { id, demo, document: build, query, roleOf } = useBuild()
const { ofNeed } = useFindings()
const { edit, set, undo } = useEdit()
const { data: catalogue } = useCatalogue()
const { byRef, rows, runs, worked, clockOf } = useSteps()
useAwake()
useKept(id, build)
const notices = useNotices()
const { data: papers } = useDerived<Documents>('documents', () => 'documents')
const { data: ahead } = useDerived<LookAhead>('look-ahead', () => 'look-ahead')
const guessing = ref<string | null>(null)
const settled = ref<Record<string, string>>({})
const faulting = ref(false)
const reading = ref('')
const reason = ref('')
const simulated = ref(false)
const without = ref(false)
const why = ref('')
const busy = ref(false)

const at = computed(() => rows.value.findIndex((row) => row.step.ref === route.params.step))
const row = computed(() => rows.value[at.value])
const step = computed(() => row.value?.step)
const place = (ref: string) => `/builds/${id.value}/build/bench/${ref}`
const openFaults = computed(() =>
  (build.value?.faults ?? []).filter((fault) => fault.step === step.value?.ref && isOpenFault(fault)),
)
watch(
  () => [step.value?.ref, step.value?.check?.measured],
  () => {
    reading.value = step.value?.check?.measured ?? ''
    reason.value = ''
    simulated.value = false
    without.value = false
    why.value = ''
  },
  { immediate: true },
)

/** What is written of this step, and what is passed over. */
const written = computed(() => papers.value?.steps.find((one) => one.step === step.value?.ref))
const unread = (ref: string) => build.value?.documents?.find((one) => one.ref === ref)?.read === undefined
const put = computed(() =>
  (build.value?.documents ?? []).flatMap((paper) =>
    (paper.corrections ?? [])
      .filter((one) => one.step === step.value?.ref)
      .map((one) => ({ ...one, title: paper.title })),
  ),
)
const stated = computed(() => (papers.value?.says ?? []).filter((one) => one.step === step.value?.ref))
const read = (ref: string) =>
  guarded(() => {
    const title = build.value?.documents?.find((one) => one.ref === ref)?.title ?? ref

    return set(`“${title}” is read`, 'documents', ref, ['read'], null, today())
  })
/** What has to be in by now, since this step closes it in. */
const within = computed(() => ahead.value?.closing.find((one) => one.step === step.value?.ref)?.within ?? [])
/** What was guessed before, and shows here. */
const toSettle = computed(() =>
  (build.value?.steps ?? []).flatMap((one) =>
    (one.guesses ?? [])
      .map((guess, i) => ({ guess, i, at: one }))
      .filter(({ guess }) => guess.settled_by === step.value?.ref && guess.settled === undefined),
  ),
)
const settle = (ref: string, i: number, what: string) =>
  guarded(() =>
    set(
      `How “${what}” turned out`,
      'steps',
      ref,
      ['guesses', i, 'settled'],
      null,
      settled.value[`${ref}/${i}`]?.trim(),
    ),
  )
async function guess(): Promise<void> {
  const what = guessing.value?.trim() ?? ''
  const held = step.value!.guesses
  if (what === '') return
  const done = await guarded(() =>
    set(`Guessed: ${what}`, 'steps', step.value!.ref, ['guesses'], held ?? null, [...(held ?? []), { what }]),
  )
  if (done) guessing.value = null
}
/** An act that cannot be taken back stays locked, whatever reason there is. */
const locked = computed(() =>
  step.value?.act === undefined ? [] : gates.value.filter((gate) => gate.kind !== 'reading'),
)

async function guarded(work: () => Promise<unknown>): Promise<boolean> {
  if (busy.value) return false
  busy.value = true
  try {
    await work()

    return true
  } catch (error) {
    notices.problem(error)

    return false
  } finally {
    busy.value = false
  }
}
const toggle = () => step.value && guarded(() => clockOf(step.value!, !runs(step.value!)))

async function measure(): Promise<void> {
  const check = step.value!.check!
  const unit = check.nominal.replace(/^[\d.,\s+−-]+/, '')
  const text = /^[+−-]?[\d.,\s]+$/.test(reading.value.trim()) ? `${reading.value.trim()} ${unit}` : reading.value.trim()
  try {
    await set(
      `Reading at “${step.value!.title}”`,
      'steps',
      step.value!.ref,
      ['check', 'measured'],
      check.measured ?? null,
      text === '' ? null : text,
    )
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
async function simulate(): Promise<void> {
  await guarded(async () => {
    reading.value = (
      await api.get<{ value: string }>(`/api/builds/${id.value}/steps/${step.value!.ref}/simulated-reading`)
    ).value
    simulated.value = true
  })
}
/** What can hurt or break of what goes in at this step, accepted or not. */
const grave = computed(() => {
  const found = new Map<string, FindingSummary>()
  for (const need of Object.keys(step.value?.uses ?? {})) {
    for (const one of ofNeed(need)) if (one.verdict === 'danger' || one.verdict === 'fails') found.set(one.key, one)
  }

  return [...found.values()]
})
/** What keeps the step from being done; a reading that is typed and not yet stored still keeps it. */
const gates = computed(() => row.value?.gates ?? [])
async function finish(state: 'done' | 'open' | 'skipped'): Promise<void> {
  const one = step.value!
  if (state === 'done' && locked.value.length > 0) {
    notices.say(`Locked: ${locked.value.map((gate) => gate.says).join('; ')}.`, true)

    return
  }
  if (state === 'done' && gates.value.length > 0 && why.value.trim().length < 4) {
    without.value = true

    return
  }
  const waived = state === 'done' && gates.value.length > 0 ? why.value.trim() : null
  const done = await guarded(async () => {
    if (runs(one)) await clockOf(one, false)
    await edit(`“${one.title}” ${state === 'open' ? 'opened again' : state}`, [
      {
        section: 'steps',
        ref: one.ref,
        set: [
          { path: ['state'], was: one.state ?? 'open', to: state },
          ...(waived === (one.waived ?? null) ? [] : [{ path: ['waived'], to: waived }]),
        ],
      },
    ])
  })
  without.value = false
  if (done && state !== 'open') {
    const following = rows.value
      .slice(at.value + 1)
      .find((other) => other.step.state === 'open' && other.waitsFor.length === 0)
    if (following) await router.push(place(following.step.ref))
  }
}
useKeys({
  l: () => (faulting.value = true),
  u: () => void undo(),
  s: () => void toggle(),
  Escape: () => void router.push(`/builds/${id.value}/build/bench`),
})
</script>

<template>
  <div class="bench">
    <header>
      <router-link class="link back" :to="`/builds/${id}/build/bench`">All steps</router-link>
      <span v-if="step" class="quiet">{{ step.section }} · {{ at + 1 }} of {{ rows.length }}</span>
      <button type="button" class="fault" @click="faulting = true">Log a fault</button>
    </header>
    <p v-if="query.isPending.value" class="quiet pad" role="status">Laying out the step …</p>
    <p v-else-if="query.isError.value" class="danger pad">{{ reasonOf(query.error.value) }}</p>
    <main v-else-if="step && row">
      <h1>{{ step.title }}</h1>
      <p v-for="caution in step.cautions" :key="caution" class="caution danger">
        <strong>{{ words(caution) }}</strong> {{ catalogue?.cautions[caution] }}
      </p>
      <p v-if="row.waitsFor.length" class="waits fails">
        First:
        <template v-for="(first, i) in row.waitsFor" :key="first"
          >{{ i ? ', ' : ''
          }}<router-link class="link" :to="place(first)">{{ byRef.get(first)?.title ?? first }}</router-link></template
        >
      </p>
      <p v-if="step.act" class="waits" :class="{ fails: locked.length > 0 }">
        {{ words(step.act) }}: this cannot be taken back.
        {{ locked.length ? 'Locked until what stands here is met.' : 'Measure twice.' }}
      </p>
      <p
        v-for="gate in gates.filter((one) => !['step', 'reading', 'fault', 'guess'].includes(one.kind))"
        :key="gate.says"
        class="waits fails"
      >
        {{ gate.says }}
        <button
          v-if="gate.kind === 'document' && gate.ref"
          type="button"
          class="plain link sim"
          @click="read(gate.ref)"
        >
          I have read it
        </button>
      </p>
      <form
        v-for="{ guess: one, i, at: where } in toSettle"
        :key="`${where.ref}/${i}`"
        class="without"
        @submit.prevent="settle(where.ref, i, one.what)"
      >
        <label
          >Guessed at “{{ where.title }}”: {{ one.what }}. What is it?
          <input v-model="settled[`${where.ref}/${i}`]" placeholder="what it turned out to be" /></label
        ><button type="submit" class="big">Store</button>
      </form>
      <p v-for="fault in openFaults" :key="fault.ref" class="waits fails">Open fault: {{ fault.what }}</p>
      <div class="columns">
        <section v-if="step.tools?.length">
          <h2>At hand</h2>
          <ul>
            <li v-for="tool in step.tools" :key="tool">{{ tool }}</li>
          </ul>
        </section>
        <section v-if="Object.keys(step.uses ?? {}).length">
          <h2>Goes in now</h2>
          <ul>
            <li v-for="(count, need) in step.uses" :key="need">
              <span class="figure">{{ count }} ×</span> {{ roleOf(String(need)) }}
            </li>
          </ul>
        </section>
      </div>
      <section v-if="within.length" aria-label="Closed in by this step">
        <h2>Closed in by this</h2>
        <p v-for="one in within.slice(0, 6)" :key="one.ref" :class="{ fails: one.is_in === false }">
          {{ one.what }}:
          {{ one.is_in === null ? 'is it in?' : one.is_in ? 'is in' : 'is not in yet' }}
          <span class="quiet small"
            >afterwards {{ decimal(one.hours.toFixed(1)) }} h, {{ percent(one.share) }} of the build, to reach it</span
          >
        </p>
        <p v-if="within.length > 6" class="quiet small">and {{ within.length - 6 }} more, each quicker to reach</p>
      </section>
      <section v-if="written || put.length || stated.length" aria-label="What is written of it">
        <h2>What is written of it</h2>
        <p v-for="one in written?.follow" :key="one.ref">
          {{ written!.undecided ? 'One says' : 'Follow' }} “{{ one.title }}”{{ one.pages ? `, ${one.pages}` : ''
          }}<span v-if="unread(one.ref)" class="fails"> · not read</span>
        </p>
        <p v-if="written?.undecided" class="fails">They disagree, and nobody has said which holds: see Documents.</p>
        <p v-for="one in written?.passed_over" :key="one.ref" class="quiet small">
          Not “{{ one.title }}”{{ one.pages ? `, ${one.pages}` : '' }}
        </p>
        <p v-for="one in put" :key="one.says">
          <s>{{ one.says }}</s> {{ one.right }}<span v-if="one.why" class="quiet small">, since {{ one.why }}</span>
        </p>
        <p v-for="one in stated" :key="one.what" :class="{ fails: one.verdict === 'other' }">
          {{ one.what }}: it says {{ one.says }}<template v-if="one.own">, here it is {{ one.own }}</template>
          <span class="quiet small">{{ one.why }}</span>
        </p>
      </section>
      <p v-for="one in step.guesses" :key="one.what" class="notes">
        Guessed: {{ one.what }}. {{ one.settled ? `It was ${one.settled}.` : 'Not known yet.' }}
      </p>
      <p v-if="step.waived" class="notes fails">Done all the same: {{ step.waived }}</p>
      <p v-if="step.notes" class="notes">{{ step.notes.replaceAll('**', '') }}</p>
      <section v-if="grave.length" aria-label="Findings on these parts">
        <h2>Findings on these parts</h2>
        <p v-for="one in grave" :key="one.key"><VerdictMark :verdict="one.verdict" word /> {{ one.headline }}</p>
      </section>
      <form v-if="guessing !== null" class="without" @submit.prevent="guess()">
        <label
          >What did you have to guess?
          <input v-model="guessing" placeholder="which way round the idler goes" autofocus /></label
        ><button type="submit" class="big">Store</button>
        <button type="button" class="plain link" @click="guessing = null">Not now</button>
      </form>
      <p v-else>
        <button type="button" class="plain link sim" @click="guessing = ''">I had to guess something</button>
      </p>
      <section v-if="step.check" class="check">
        <h2>Measure</h2>
        <p>
          {{ step.check.what }}: <span class="figure">{{ step.check.nominal }} ± {{ step.check.tolerance }}</span>
        </p>
        <form @submit.prevent="measure()">
          <input
            v-model="reading"
            inputmode="text"
            aria-label="Reading"
            placeholder="reading"
            :aria-invalid="reason !== ''"
          />
          <button type="submit" class="big">Store</button>
          <VerdictMark v-if="row.verdict && step.check.measured" :verdict="row.verdict" word :size="26" />
        </form>
        <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
        <p v-if="demo" class="quiet small">
          No instrument at hand?
          <button type="button" class="plain link sim" @click="simulate()">Read the simulated one</button
          ><template v-if="simulated"> This reading is simulated.</template>
        </p>
      </section>
    </main>
    <p v-else class="pad">
      There is no such step. <router-link class="link" :to="`/builds/${id}/build/bench`">All steps</router-link>
    </p>
    <form v-if="without && step" class="pad without" @submit.prevent="finish('done')">
      <p class="fails">It cannot be done yet:</p>
      <ul class="fails">
        <li v-for="gate in gates" :key="gate.kind + gate.ref">{{ gate.says }}</li>
      </ul>
      <input v-model="why" aria-label="Why it goes on without" placeholder="why it goes on all the same" />
      <button type="submit" class="big">Mark as done anyway</button>
      <button type="button" class="plain link" @click="without = false">Not yet</button>
    </form>
    <footer v-if="step && row">
      <router-link v-if="at > 0" class="big" :to="place(rows[at - 1]!.step.ref)" aria-label="Step before"
        >‹</router-link
      >
      <button type="button" class="big clock" :class="{ on: runs(step) }" :aria-pressed="runs(step)" @click="toggle()">
        <span class="figure">{{ clock(worked(step)) }}</span> {{ runs(step) ? 'Stop' : 'Start' }}
      </button>
      <button
        v-if="step.state === 'open' || step.state === undefined"
        type="button"
        class="big done"
        @click="finish('done')"
      >
        Done
      </button>
      <button v-else type="button" class="big" @click="finish('open')">Open again</button>
      <router-link v-if="at < rows.length - 1" class="big" :to="place(rows[at + 1]!.step.ref)" aria-label="Step after"
        >›</router-link
      >
    </footer>
    <FaultDialog v-model="faulting" :step="step?.ref" />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-rows: auto 1fr auto;
  height: 100%;
  font-size: 20px;
  max-width: 900px;
  margin: 0 auto;
}
header {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 6px 16px;
  font-size: 16px;
  border-bottom: 1px solid var(--rule);
}
.back {
  padding: 11px 0;
}
.fault {
  margin-left: auto;
  min-height: 44px;
  padding: 0 18px;
  font: inherit;
  font-weight: 600;
  background: none;
  color: rgb(var(--v-theme-fails));
  border: 2px solid currentColor;
  border-radius: 2px;
  cursor: pointer;
}
main {
  overflow: auto;
  padding: 20px 16px;
}
.pad {
  padding: 24px 16px;
}
h1 {
  font-size: 40px;
}
h2 {
  font-size: 20px;
  color: var(--quiet);
}
.caution {
  border-left: 4px solid currentColor;
  padding: 4px 12px;
  margin: 12px 0;
  font-size: 18px;
}
.caution strong {
  display: block;
}
.caution strong::first-letter {
  text-transform: uppercase;
}
.waits {
  font-weight: 600;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px 40px;
  margin-top: 16px;
}
ul {
  padding-left: 22px;
  margin: 4px 0;
}
li {
  min-height: 32px;
}
.notes {
  margin: 18px 0;
  max-width: 60ch;
  white-space: pre-line;
}
.check {
  border-top: 1px solid var(--ink);
  padding-top: 12px;
  margin-top: 20px;
}
.check form {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  font-size: 28px;
}
.check input {
  width: 200px;
  height: 56px;
  padding: 0 12px;
  font: inherit;
  font-family: var(--figures);
  font-size: 28px;
  color: var(--ink);
  background: var(--sheet);
  border: 2px solid var(--rule);
  border-radius: 2px;
}
.without input {
  display: block;
  width: 100%;
  min-height: 52px;
  padding: 0 12px;
  margin: 8px 0;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 2px solid var(--rule);
  border-radius: 2px;
}
.sim {
  padding: 12px 0;
}
footer {
  display: flex;
  gap: 10px;
  padding: 10px 16px 14px;
  border-top: 1px solid var(--rule);
  background: var(--sheet);
}
.big {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  min-height: 60px;
  min-width: 60px;
  padding: 0 16px;
  font: inherit;
  font-size: 24px;
  color: inherit;
  background: none;
  border: 1px solid var(--rule);
  border-radius: 2px;
  cursor: pointer;
  text-decoration: none;
}
.clock {
  flex: 1;
}
.clock.on {
  border-color: var(--live);
  box-shadow: inset 0 -4px 0 var(--live);
}
.done {
  flex: 1;
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  font-weight: 600;
  border-color: transparent;
}
@media (max-width: 500px) {
  h1 {
    font-size: 28px;
  }
  .bench {
    font-size: 18px;
  }
  .big {
    padding: 0 10px;
    font-size: 20px;
  }
  header {
    gap: 10px;
    padding: 6px 10px;
  }
  .fault {
    padding: 0 10px;
  }
}
</style>
