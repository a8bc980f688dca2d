<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf, type FindingSummary } from '@/api/client'
import { useKeys } from '@/app/useKeys'
import { clock, words } from '@/shared/format'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'
import FaultDialog from './FaultDialog.vue'
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
const notices = useNotices()
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
  (build.value?.faults ?? []).filter(
    (fault) => fault.step === step.value?.ref && fault.state !== 'fixed' && fault.state !== 'closed',
  ),
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
      <p v-for="gate in gates.filter((one) => one.kind === 'part')" :key="gate.says" class="waits fails">
        {{ gate.says }}
      </p>
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
      <p v-if="step.waived" class="notes fails">Done all the same: {{ step.waived }}</p>
      <p v-if="step.notes" class="notes">{{ step.notes.replaceAll('**', '') }}</p>
      <section v-if="grave.length" aria-label="Said of what goes in">
        <h2>Said of what goes in</h2>
        <p v-for="one in grave" :key="one.key"><VerdictMark :verdict="one.verdict" word /> {{ one.headline }}</p>
      </section>
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
