<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, type Hours } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { written } from '@/shared/decimals'
import { hoursLeft, leftOut } from '@/shared/forecast'
import { percent } from '@/shared/format'
import { useBuild, useDerived } from '@/shared/useBuild'

/** Where the hours went: sittings with their pauses, own pace by section, who worked, what is left, and what was learnt. */
const { id, overview } = useBuild()
const { data: hours, isError, error } = useDerived<Hours>('hours', () => 'hours')
const h = (value: number) => written(value.toFixed(1))
const when = (unix: number) =>
  new Date(unix * 1000).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
const until = (unix: number) =>
  new Date(unix * 1000).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
const people = computed(() => Object.entries(hours.value?.people ?? {}))
const most = computed(() =>
  Math.max(0.1, ...(hours.value?.sections ?? []).map((one) => Math.max(one.guide, one.worked))),
)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Hours</h1>
      <span v-if="overview" class="quiet"
        ><span class="figure">{{ hoursLeft(overview.forecast) }}</span> h left<template
          v-if="leftOut(overview.forecast)"
        >
          ({{ leftOut(overview.forecast) }})</template
        ><template v-if="hours?.band"
          >, {{ h(hours.band.low) }} to {{ h(hours.band.high) }} h in eight of ten such builds</template
        ><template v-else>; the band about it is known once five steps are done by the clock</template></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="hours && hours.sittings.length === 0" class="empty">
      No clock has run yet. Start the clock of a step at the bench, and stop it for a pause: sittings, own pace and what
      is left follow from that.
      <FirstAction path="build/bench">To the bench</FirstAction>
    </p>
    <template v-else-if="hours">
      <table class="ledger stack">
        <thead>
          <tr>
            <th>Section</th>
            <th class="bars" />
            <th class="num">Guide</th>
            <th class="num">Worked</th>
            <th class="num">Own pace</th>
            <th class="num">Done</th>
            <th class="num">Guide left</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in hours.sections" :key="one.section">
            <td>{{ one.section }}</td>
            <td class="bars" aria-hidden="true">
              <span class="bar guide" :style="{ width: `${(one.guide / most) * 100}%` }" />
              <span class="bar own" :style="{ width: `${(one.worked / most) * 100}%` }" />
            </td>
            <td class="num figure" data-of="Guide">{{ h(one.guide) }} h</td>
            <td class="num figure" data-of="Worked">{{ h(one.worked) }} h</td>
            <td class="num figure" data-of="Own pace">{{ one.pace === null ? '' : percent(one.pace) }}</td>
            <td class="num figure" data-of="Done">{{ one.done }} of {{ one.steps }}</td>
            <td class="num figure" data-of="Guide left">{{ h(one.left) }} h</td>
          </tr>
        </tbody>
      </table>
      <p v-if="people.length > 1" class="small">
        <span v-for="[name, worked] in people" :key="name" class="person"
          >{{ name || 'nobody named' }}: <span class="figure">{{ h(worked) }} h</span></span
        >
      </p>
      <h2>Sittings</h2>
      <table class="ledger stack">
        <thead>
          <tr>
            <th>When</th>
            <th>Who</th>
            <th class="num">Worked</th>
            <th class="num">Pauses</th>
            <th class="num">Steps</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in hours.sittings" :key="`${one.start}/${one.by}`">
            <td>{{ when(one.start) }} to {{ until(one.stop) }}</td>
            <td>{{ one.by ?? '' }}</td>
            <td class="num figure" data-of="Worked">{{ h(one.worked) }} h</td>
            <td class="num figure" data-of="Pauses">{{ one.pause > 0.05 ? `${h(one.pause)} h` : '' }}</td>
            <td class="num figure" data-of="Steps">{{ one.steps }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="hours.learnt.length">
        <h2>Learnt from build to build</h2>
        <p v-for="one in hours.learnt" :key="one.build">
          <router-link class="link" :to="`/builds/${one.build}/build/hours`">{{ one.name }}</router-link>: at the
          {{ one.steps }} steps both have done, the first took {{ h(one.first) }} h and the second
          {{ h(one.second) }} h, {{ percent(one.rate) }} of it. A third would take about {{ h(one.third) }} h, if it
          goes on so.
        </p>
      </template>
      <p class="quiet small">
        A pause of more than an hour and a half begins another sitting. Days of the calendar are under
        <router-link class="link" :to="`/builds/${id}/buy/dates`">Dates</router-link>.
      </p>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 18px 0 4px;
}
.bars {
  width: 30%;
  min-width: 90px;
}
.bar {
  display: block;
  height: 6px;
  margin: 2px 0;
}
.guide {
  background: var(--rule);
}
.own {
  background: var(--live);
}
.person {
  margin-right: 18px;
}
@media (max-width: 700px) {
  .bars {
    display: none;
  }
}
</style>
