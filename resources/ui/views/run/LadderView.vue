<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { reasonOf, type Change, type Ladder, type Rung } from '@/api/client'
import { atTime, words } from '@/shared/format'
import { freshRef, toggled } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { useWaiting } from '@/offline/useWaiting'
import ReadingLine from './ReadingLine.vue'
import { me, seconds } from './useReadings'

/** The way to the first power and beyond: one rung after the other, made from what is fitted. */
const { document: build, demo } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const { busy, reason, act } = useAct()
const waiting = useWaiting()
const { data: ladder, isError, error } = useDerived<Ladder>('ladder', () => 'ladder')
const open = ref<string | null>(null)
const allDangers = ref(false)
// Whoever stands on a rung that is passed goes on to the next.
watch(
  () => ladder.value?.next,
  (next, was) => {
    if (open.value === null || open.value === was) open.value = next ?? null
  },
  { immediate: true },
)
const stages = computed(() => {
  const groups: { stage: string; rungs: Rung[] }[] = []
  for (const rung of ladder.value?.rungs ?? []) {
    if (groups.at(-1)?.stage !== rung.stage) groups.push({ stage: rung.stage, rungs: [] })
    groups.at(-1)!.rungs.push(rung)
  }

  return groups
})
const titleOf = (key: string | null) => ladder.value?.rungs.find((rung) => rung.key === key)?.title ?? ''
const number = (rung: Rung) => (ladder.value?.rungs.findIndex((one) => one.key === rung.key) ?? 0) + 1
const record = (rung: Rung) => build.value?.rungs?.find((one) => one.ref === rung.key)
/** As it was noted here, also where that is not sent yet. */
const isTicked = (rung: Rung, look: Rung['looks'][number]) => record(rung)?.ticks?.includes(look.key) ?? look.done
/** A rung as it is noted, with something put in. */
async function note(rung: Rung, label: string, put: Record<string, unknown>): Promise<void> {
  const held = record(rung)
  const by = await me()
  const all = { ...put, at: seconds(), ...(by === undefined ? {} : { by }) }
  const change: Change =
    held === undefined
      ? {
          section: 'rungs',
          create: { ref: rung.key, ...Object.fromEntries(Object.entries(all).filter(([, to]) => to !== null)) },
        }
      : {
          section: 'rungs',
          ref: rung.key,
          set: Object.entries(all).map(([key, to]) => ({
            path: [key],
            ...(key in put ? { was: (held as Record<string, unknown>)[key] ?? null } : {}),
            to,
          })),
        }
  await edit(label, [change])
}
const tick = (rung: Rung, look: Rung['looks'][number]) =>
  act(() =>
    note(rung, `${isTicked(rung, look) ? 'Not looked at' : 'Looked at'}: ${rung.title}`, {
      ticks: toggled(record(rung)?.ticks, look.key),
    }),
  )
const why = ref('')
const passing = ref<string | null>(null)
const override = (rung: Rung) =>
  act(async () => {
    await note(rung, `${rung.title} passed with a reason`, { override: why.value.trim(), over: rung.keeps })
    why.value = ''
    passing.value = null
  })
const takeBack = (rung: Rung) =>
  act(() => note(rung, `${rung.title}: reason taken back`, { override: null, over: null }))
/** One time power came on, and what was seen. */
const attempt = ref({ breaker: 'held', stops: 'not looked at', started: true, lamps: '' })
const attempting = ref<string | null>(null)
const log = (rung: Rung) =>
  act(async () => {
    const by = await me()
    await edit(`Power at ${rung.title}`, [
      {
        section: 'attempts',
        create: {
          ref: freshRef('P', build.value?.attempts, waiting.cut),
          at: seconds(),
          breaker: attempt.value.breaker,
          stops: attempt.value.stops,
          started: attempt.value.started,
          rung: rung.key,
          ...(attempt.value.lamps ? { lamps: attempt.value.lamps } : {}),
          ...(by === undefined ? {} : { by }),
        },
      },
    ])
    attempting.value = null
    attempt.value = { breaker: 'held', stops: 'not looked at', started: true, lamps: '' }
  })
const attemptsOf = (rung: Rung) => (build.value?.attempts ?? []).filter((one) => one.rung === rung.key)
const isPowered = (rung: Rung) => rung.live.length > 0
/** Dangers are said once, above; at a rung only what is its own. */
const ownGates = (rung: Rung) => rung.gates.filter((gate) => !ladder.value?.dangers.includes(gate))
const dangersAt = (rung: Rung) => rung.gates.length - ownGates(rung).length
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Power-up</h1>
      <span v-if="ladder" class="quiet"
        >{{ ladder.passed }} of {{ ladder.rungs.length }} rungs passed<template v-if="ladder.next"
          >; stands at “{{ titleOf(ladder.next) }}”</template
        ></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="ladder">
      <p class="small">
        A planning aid, not a permit: a rung that is passed says that nothing was found, not that it is safe. Mains
        rungs are for somebody practised; local code and a licensed electrician decide.
      </p>
      <section v-if="ladder.dangers.length" class="stop" aria-label="What keeps power away">
        <h2 class="danger">No power before this is put right</h2>
        <ul>
          <li v-for="danger in ladder.dangers.slice(0, allDangers ? undefined : 4)" :key="danger">{{ danger }}</li>
        </ul>
        <button
          v-if="ladder.dangers.length > 4"
          type="button"
          class="plain link small"
          :aria-expanded="allDangers"
          @click="allDangers = !allDangers"
        >
          {{ allDangers ? 'fewer' : `and ${ladder.dangers.length - 4} more` }}
        </button>
      </section>
      <p v-if="ladder.unexplained.length" class="tight" role="status">
        It did not start, and the stops were {{ ladder.unexplained[0]!.stops }}: look at every stop and at the breaker
        before it is called a fault.
      </p>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <section v-for="group in stages" :key="group.stage" :aria-label="group.stage">
        <h2 class="stage">{{ group.stage }}</h2>
        <article v-for="rung in group.rungs" :key="rung.key" class="rung" :class="rung.state.replaceAll(' ', '-')">
          <button
            type="button"
            class="plain head"
            :aria-expanded="open === rung.key"
            @click="open = open === rung.key ? null : rung.key"
          >
            <span class="figure quiet">{{ number(rung) }}</span>
            <strong>{{ rung.title }}</strong>
            <span class="state">{{ rung.state }}</span>
          </button>
          <div v-if="open === rung.key" class="inside">
            <p>{{ rung.does }}</p>
            <p v-if="rung.live.length" class="small"><strong>May be live:</strong> {{ rung.live.join(', ') }}.</p>
            <p v-for="caution in rung.cautions" :key="caution" class="caution">
              <strong>{{ words(caution) }}</strong> {{ catalogue?.cautions[caution] }}
            </p>
            <p v-if="rung.after" class="unproven">First: {{ titleOf(rung.after) }}.</p>
            <p v-if="dangersAt(rung)" class="danger">
              {{ dangersAt(rung) }} open {{ dangersAt(rung) === 1 ? 'danger' : 'dangers' }}, above.
            </p>
            <ul v-if="ownGates(rung).length" class="fails small">
              <li v-for="gate in ownGates(rung).slice(0, 12)" :key="gate">{{ gate }}</li>
              <li v-if="ownGates(rung).length > 12">and {{ ownGates(rung).length - 12 }} more</li>
            </ul>
            <label v-for="look in rung.looks" :key="look.key" class="look"
              ><input type="checkbox" :checked="isTicked(rung, look)" :disabled="busy" @change="tick(rung, look)" />
              {{ look.says }}</label
            >
            <ReadingLine v-for="one in rung.readings" :key="one.key" :expected="one" :demo="demo" />
            <p v-for="one in attemptsOf(rung)" :key="one.ref" class="small">
              {{ atTime(one.at) }}: {{ one.started ? 'started' : 'did not start' }}, breaker {{ one.breaker }}, stops
              {{ one.stops }}{{ one.lamps ? `, ${one.lamps}` : '' }}{{ one.by ? ` (${one.by})` : '' }}
            </p>
            <p v-if="rung.override" class="tight small">
              Passed with a reason{{ rung.by ? ` by ${rung.by}` : '' }}: {{ rung.override }}
              <button type="button" class="plain link" @click="takeBack(rung)">take it back</button>
            </p>
            <div class="fields">
              <template v-if="isPowered(rung)">
                <button v-if="attempting !== rung.key" type="button" class="touch" @click="attempting = rung.key">
                  Log power on
                </button>
                <form v-else class="attempt" @submit.prevent="log(rung)">
                  <label
                    >breaker
                    <select v-model="attempt.breaker" class="field">
                      <option>held</option>
                      <option>tripped</option>
                      <option>was off</option>
                    </select></label
                  >
                  <label
                    >stops
                    <select v-model="attempt.stops" class="field">
                      <option>released</option>
                      <option>pressed</option>
                      <option>not looked at</option>
                    </select></label
                  >
                  <label><input v-model="attempt.started" type="checkbox" /> it started</label>
                  <input v-model="attempt.lamps" class="field" aria-label="Lamps seen" placeholder="lamps seen" />
                  <button type="submit" class="touch">Store</button>
                </form>
              </template>
              <button
                v-if="rung.keeps.length && rung.after === null && rung.state !== 'waived' && passing !== rung.key"
                type="button"
                class="plain link small"
                @click="passing = rung.key"
              >
                Pass it with a reason
              </button>
            </div>
            <form v-if="passing === rung.key" class="fields" @submit.prevent="override(rung)">
              <input
                v-model="why"
                class="field reason"
                aria-label="Why it is passed all the same"
                placeholder="why it is passed all the same"
              />
              <button type="submit" class="touch" :disabled="why.trim().length < 4">Pass</button>
              <button type="button" class="plain link small" @click="passing = null">leave it closed</button>
            </form>
          </div>
        </article>
      </section>
    </template>
  </div>
</template>

<style scoped>
.view {
  max-width: 900px;
}
.stage::first-letter {
  text-transform: uppercase;
}
.stage {
  margin: 18px 0 2px;
  font-size: 15px;
  color: var(--quiet);
}
.stop {
  border-left: 4px solid rgb(var(--v-theme-danger));
  padding: 4px 14px;
  margin: 10px 0;
}
.stop ul,
.inside ul {
  padding-left: 20px;
}
.rung {
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid var(--rule);
  padding-left: 12px;
}
.rung.passed {
  border-left-color: rgb(var(--v-theme-holds));
}
.rung.waived {
  border-left-color: rgb(var(--v-theme-tight));
}
.rung.out-of-band {
  border-left-color: rgb(var(--v-theme-fails));
}
.rung.open {
  border-left-color: var(--live);
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 44px;
}
.state {
  margin-left: auto;
  font-size: 13px;
  color: var(--quiet);
}
.out-of-band .state {
  color: rgb(var(--v-theme-fails));
  font-weight: 600;
}
.open .state {
  color: var(--live);
}
.inside {
  padding: 2px 0 14px 24px;
}
.caution {
  border-left: 4px solid rgb(var(--v-theme-danger));
  padding: 2px 12px;
  margin: 8px 0;
}
.look {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
}
.look input {
  flex: none;
  width: 22px;
  height: 22px;
  accent-color: var(--live);
}
.attempt {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
.reason {
  min-width: min(420px, 100%);
  height: 44px;
}
@media (max-width: 700px) {
  .inside {
    padding-left: 4px;
  }
}
</style>
