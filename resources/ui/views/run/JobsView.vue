<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ProgramCheck, StartList } from '@/api/client'
import { written } from '@/shared/decimals'
import { freshRef } from '@/shared/refs'
import { onDay } from '@/shared/format'
import ErrandState from '@/shared/ErrandState.vue'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useErrand } from '@/shared/useErrand'
import VerdictMark from '@/shared/VerdictMark.vue'
import { seconds } from './useReadings'

/** Before a job: what is looked at, whether its program fits this machine; after it, its hours. */
const { document: build } = useBuild()
const { edit } = useEdit()
const { busy, reason, act } = useAct()
const material = ref('')
const { data: start } = useDerived<StartList>(
  'start-list',
  () => `start-list?material=${encodeURIComponent(material.value)}`,
)
const ticked = ref(new Set<string>())
const tick = (look: string) =>
  (ticked.value = new Set(
    ticked.value.has(look) ? [...ticked.value].filter((one) => one !== look) : [...ticked.value, look],
  ))
const origin = ref({ x: '', y: '', z: '' })
const stock = ref('')
const zero = ref<'top' | 'bed'>('top')
const checked = ref<ProgramCheck | null>(null)
const name = ref('')
const { errand, send, again, stop } = useErrand<ProgramCheck>('program')
const tell = (work: () => Promise<ProgramCheck | null>) =>
  act(async () => {
    checked.value = await work()
    name.value = (errand.value?.name ?? '').replace(/\.\w+$/, '')
  })
function check(event: Event): void {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file === undefined) return
  const zeros = Object.entries(origin.value).filter(([, value]) => value.trim() !== '')
  void tell(() =>
    send({
      program: file,
      ...Object.fromEntries(zeros.map(([key, value]) => [key, value.trim()])),
      ...(stock.value ? { stock: stock.value } : {}),
      zero: zero.value,
    }),
  )
}
const number = (value: number | null | undefined, unit = '') =>
  value === null || value === undefined ? '–' : `${written(String(value))}${unit ? ` ${unit}` : ''}`
/** "1 h 05 min". */
const clock = (of: number) =>
  of < 60
    ? `${Math.round(of)} s`
    : of < 3600
      ? `${Math.round(of / 60)} min`
      : `${Math.floor(of / 3600)} h ${String(Math.round((of % 3600) / 60)).padStart(2, '0')} min`
const jobs = computed(() => [...(build.value?.jobs ?? [])].sort((a, b) => b.at - a.at))
const job = ref({ name: '', time: '', spindle: '', heat: '' })
const log = () =>
  act(async () => {
    const { name, time, ...more } = job.value
    await edit(`Job ${name}`, [
      {
        section: 'jobs',
        create: {
          ref: freshRef('J', build.value?.jobs, false),
          name,
          time,
          at: seconds(),
          ...(material.value ? { material: material.value } : {}),
          ...Object.fromEntries(Object.entries(more).filter(([, text]) => text.trim() !== '')),
        },
      },
    ])
    job.value = { name: '', time: '', spindle: '', heat: '' }
  })
const takeOver = () => {
  job.value.name = name.value
  job.value.time = `${Math.max(0.01, Math.round((checked.value!.seconds / 3600) * 100) / 100)} h`
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Jobs</h1>
      <span class="quiet">before one, what to look at and whether its program fits; after it, its hours</span>
    </div>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <label
      >Material <input v-model.lazy="material" class="field" aria-label="Material" placeholder="birch ply"
    /></label>
    <section v-if="start" aria-label="Before the start">
      <div v-if="start.blocks.length" class="stop">
        <h2 class="danger">Not now</h2>
        <ul>
          <li v-for="block in start.blocks" :key="block">{{ block }}</li>
        </ul>
      </div>
      <h2>Before the start</h2>
      <label v-for="look in start.looks" :key="look" class="look"
        ><input type="checkbox" :checked="ticked.has(look)" @change="tick(look)" /> {{ look }}</label
      >
    </section>
    <section aria-label="A program against this machine">
      <h2>A program against this machine</h2>
      <div class="fields">
        <span class="small quiet">where its zero lies, in mm from each end, if known</span>
        <input
          v-for="axis in ['x', 'y', 'z'] as const"
          :key="axis"
          v-model="origin[axis]"
          class="field short"
          :aria-label="`Zero in ${axis.toUpperCase()}`"
          :placeholder="axis.toUpperCase()"
        />
        <select v-model="stock" class="field" aria-label="Cut from">
          <option value="">cut from …</option>
          <option v-for="piece in build?.workpieces ?? []" :key="piece.ref" :value="piece.ref">{{ piece.name }}</option>
        </select>
        <select v-if="stock" v-model="zero" class="field" aria-label="Its zero in height">
          <option value="top">zero on its top</option>
          <option value="bed">zero on what it lies on</option>
        </select>
        <label class="pick"
          >Choose a program<input
            type="file"
            accept=".nc,.gcode,.ngc,.tap,.txt,.cnc"
            aria-label="A program"
            :disabled="busy"
            @change="check"
        /></label>
      </div>
      <ErrandState v-if="errand" :errand="errand" what="Reading the program" @stop="stop()" @again="tell(again)" />
      <template v-if="checked">
        <p class="verdict">
          <VerdictMark :verdict="checked.verdict" word :size="20" />
          <strong>{{ name }}</strong>
          <span class="quiet"
            >{{ number(checked.lines) }} lines, {{ clock(checked.seconds) }} by the model<template
              v-if="checked.energy !== null"
              >, {{ number(Math.round(checked.energy) / 1000, 'kWh') }} at the most</template
            ></span
          >
        </p>
        <ul class="troubles">
          <li v-for="trouble in checked.troubles" :key="trouble.says">
            <VerdictMark :verdict="trouble.verdict" word />
            <span v-if="trouble.line" class="figure quiet">line {{ trouble.line }}</span> {{ trouble.says }}
            <span v-if="trouble.times > 1" class="quiet small">{{ trouble.times }} times</span>
          </li>
        </ul>
        <table class="ledger stack">
          <thead>
            <tr>
              <th>Axis</th>
              <th class="num">From</th>
              <th class="num">To</th>
              <th class="num">Travel</th>
              <th class="num">Left</th>
              <th class="num">Fed at</th>
              <th class="num">Can</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="axis in checked.axes" :key="axis.axis">
              <td>{{ axis.axis }}</td>
              <td class="num figure" data-of="From">{{ number(axis.low, 'mm') }}</td>
              <td class="num figure" data-of="To">{{ number(axis.high, 'mm') }}</td>
              <td class="num figure" data-of="Travel">{{ number(axis.travel, 'mm') }}</td>
              <td class="num figure" :class="{ fails: (axis.left ?? 0) < 0 }" data-of="Left">
                {{ number(axis.left, 'mm') }}
              </td>
              <td class="num figure" data-of="Fed at">{{ number(axis.feed, 'mm/min') }}</td>
              <td class="num figure" data-of="Can">{{ number(axis.cap, 'mm/min') }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="checked.stock.length" class="small">
          Of the stock:
          <span v-for="row in checked.stock" :key="row.axis" class="figure of"
            >{{ row.axis }} {{ number(row.cut, 'mm') }} of {{ number(row.size, 'mm') }},
            {{ number(row.left, 'mm') }} left</span
          >
          <span class="quiet">middle of the cutter; half of its width comes on top.</span>
        </p>
        <p class="small quiet">
          Nothing found is not to say that it is safe: the first run is in the air, a hand at the stop.
          <button type="button" class="plain link" @click="takeOver()">Log it as a job</button>
        </p>
      </template>
    </section>
    <section aria-label="Jobs done">
      <h2>Done</h2>
      <form class="fields" @submit.prevent="log()">
        <input v-model="job.name" class="field" aria-label="Name of the job" placeholder="what it was" />
        <input v-model="job.time" class="field short" aria-label="Time it ran" placeholder="2.5 h" />
        <input v-model="job.spindle" class="field short" aria-label="Time the tool was on" placeholder="tool on" />
        <input v-model="job.heat" class="field short" aria-label="Time the heaters were on" placeholder="heat on" />
        <v-btn type="submit" size="small" color="primary" variant="flat" :disabled="busy || !job.name || !job.time"
          >Log</v-btn
        >
      </form>
      <p v-if="jobs.length === 0" class="empty">No job is logged. Upkeep is due by hours, and hours come from jobs.</p>
      <table v-else class="ledger stack">
        <thead>
          <tr>
            <th>Job</th>
            <th>When</th>
            <th class="num">Ran</th>
            <th class="wide-only">Material</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in jobs" :key="one.ref">
            <td>{{ one.name }}</td>
            <td class="quiet small">{{ onDay(one.at) }}</td>
            <td class="num figure" data-of="Ran">{{ one.time }}</td>
            <td class="wide-only small">{{ one.material }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
h2 {
  margin: 18px 0 4px;
}
.stop {
  border-left: 4px solid rgb(var(--v-theme-danger));
  padding: 0 14px;
}
.look {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
}
.look input {
  width: 20px;
  height: 20px;
  flex: none;
  accent-color: var(--live);
}
.short {
  width: 92px;
}
.verdict {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
ul {
  padding-left: 20px;
}
.of {
  margin-right: 14px;
}
.troubles {
  padding: 0;
  list-style: none;
}
</style>
