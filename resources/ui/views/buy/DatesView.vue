<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Dates } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { day, percent } from '@/shared/format'
import { useBuild, useDerived } from '@/shared/useBuild'

/** When the machine can be done, what to order by when, what the end hangs on, and how far it may lie apart. */
const { id } = useBuild()
const { data: dates, isError, error } = useDerived<Dates>('dates', () => 'dates')
const which = ref<'critical' | 'order' | 'print' | 'work' | 'all'>('critical')
const titles = {
  critical: 'what the end hangs on',
  order: 'to order',
  print: 'to print',
  work: 'steps',
  all: 'all',
} as const
type Activity = Dates['activities'][number]
const all = computed(() => dates.value?.activities ?? [])
const isShown = (one: Activity, key: keyof typeof titles) =>
  key === 'all' || (key === 'critical' ? one.critical : one.kind === key)
const shown = computed(() =>
  all.value
    .filter((one) => isShown(one, which.value))
    .sort((a, b) =>
      which.value === 'order' ? a.latest.localeCompare(b.latest) : a.begins - b.begins || a.days - b.days,
    ),
)
const count = (key: keyof typeof titles) => all.value.filter((one) => isShown(one, key)).length
const whole = computed(() => Math.max(1, ...all.value.map((one) => one.begins + one.days)))
const at = (days: number) => `${(days / whole.value) * 100}%`
const label = (key: string) => all.value.find((one) => one.key === key)?.label ?? key
const kinds = { work: 'step', order: 'to order', coming: 'on its way', print: 'to print' } as const
/** Round days along the top of the bars. */
const marks = computed(() => {
  const step = [1, 2, 7, 14, 28, 56, 182, 365].find((one) => whole.value / one <= 8) ?? 730

  return Array.from({ length: Math.floor(whole.value / step) + 1 }, (_, i) => i * step)
})
function dayAfter(days: number): string {
  const from = new Date(`${dates.value?.today ?? ''}T12:00:00`)
  from.setDate(from.getDate() + days)

  return from.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Dates</h1>
      <span v-if="dates" class="quiet">if all that is missing is ordered today where it is cheapest</span>
      <span v-if="all.length" class="push"
        ><v-btn :href="`/api/builds/${id}/dates.ics`" download>Calendar file</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="dates && all.length === 0" class="empty">
      Nothing is to come and no step is open: there is nothing to plan.
      <FirstAction path="build/bench">Add a step</FirstAction>
    </p>
    <template v-else-if="dates">
      <dl class="across">
        <div>
          <dt>As planned</dt>
          <dd class="figure">{{ day(dates.planned) }}</dd>
        </div>
        <div>
          <dt>In half of the cases by</dt>
          <dd class="figure">{{ day(dates.p50) }}</dd>
        </div>
        <div>
          <dt>In nine of ten by</dt>
          <dd class="figure">
            <strong>{{ day(dates.p90) }}</strong>
          </dd>
        </div>
        <div v-if="dates.drivers.length">
          <dt>What spreads it most</dt>
          <dd class="small">
            {{
              dates.drivers
                .slice(0, 3)
                .map((one) => `${label(one.key)} (${percent(one.share)})`)
                .join(', ')
            }}
          </dd>
        </div>
      </dl>
      <p v-for="wait in dates.waits" :key="wait.from" class="small">
        {{ wait.days }} days from {{ day(wait.from) }} with nothing to do: “{{ wait.for }}” waits for its parts. Time
        for research, prints and panels.
      </p>
      <p v-if="dates.assumed.length" class="unproven small">Taken for granted: {{ dates.assumed.join('; ') }}.</p>
      <span class="choices" role="group" aria-label="Which lines"
        ><button
          v-for="(title, key) in titles"
          :key="key"
          type="button"
          class="plain"
          :aria-pressed="which === key"
          @click="which = key"
        >
          {{ title }} <span class="quiet">{{ count(key) }}</span>
        </button></span
      >
      <p v-if="shown.length === 0" class="empty">No line is like that.</p>
      <table v-else class="ledger stack" tabindex="0">
        <thead>
          <tr>
            <th>What</th>
            <th class="wide-only">Kind</th>
            <th class="num wide-only">{{ which === 'order' ? 'Order by' : 'From' }}</th>
            <th class="num wide-only">{{ which === 'order' ? 'Then here' : 'To' }}</th>
            <th class="num">May slip</th>
            <th class="bars wide-only">
              <span class="scale"
                ><span v-for="mark in marks" :key="mark" class="mark quiet" :style="{ left: at(mark) }">{{
                  dayAfter(mark)
                }}</span></span
              >
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.key">
            <td class="what">
              {{ one.label
              }}<span class="quiet small narrow">{{
                which === 'order' ? `order by ${day(one.latest)}` : `${day(one.from)} to ${day(one.to)}`
              }}</span
              ><span v-if="one.assumed.length" class="unproven small block">{{ one.assumed.join('; ') }}</span>
            </td>
            <td class="small quiet wide-only">{{ kinds[one.kind] }}</td>
            <td class="num figure wide-only">{{ day(which === 'order' ? one.latest : one.from) }}</td>
            <td class="num figure wide-only">{{ day(one.to) }}</td>
            <td class="num figure" :class="{ tight: one.critical }">
              {{ one.critical ? 'not at all' : `${Math.floor(one.slack)} d` }}
            </td>
            <td class="bars wide-only" aria-hidden="true">
              <span class="line"
                ><span class="slip" :style="{ left: at(one.begins), width: at(one.days + one.slack) }" /><span
                  class="bar"
                  :class="{ critical: one.critical, work: one.kind === 'work' }"
                  :style="{ left: at(one.begins), width: at(one.days) }"
              /></span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">
        Steps one after another, at your hours a week and your own pace. A delivery may take from four fifths to twice
        what is promised, a step from seven tenths to twice what is planned, a print from nine tenths to one and a half
        times: common practice, no source. 4,000 tries, the same each time.
      </p>
    </template>
  </div>
</template>

<style scoped>
.block {
  display: block;
}
.narrow {
  display: none;
}
@media (max-width: 700px) {
  .narrow {
    display: block;
  }
}
.what {
  max-width: 320px;
}
.bars {
  width: 40%;
  min-width: 260px;
}
.scale,
.line {
  position: relative;
  display: block;
  height: 16px;
}
.mark {
  position: absolute;
  font-size: 11px;
  font-weight: 400;
  white-space: nowrap;
}
.bar,
.slip {
  position: absolute;
  top: 4px;
  height: 8px;
  min-width: 2px;
}
.bar {
  border: 1.5px solid var(--live);
}
.bar.work {
  background: var(--live);
}
.bar.critical {
  border-color: var(--ink);
}
.bar.work.critical {
  background: var(--ink);
}
.slip {
  top: 7px;
  height: 1.5px;
  background: var(--rule);
}
</style>
