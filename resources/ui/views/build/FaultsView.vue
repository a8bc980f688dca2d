<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Fault } from '@/api/client'
import { isOpenFault } from '@/shared/faults'
import { day, money, percent, words } from '@/shared/format'
import { useBuild } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'

const { document: build, overview, roleOf } = useBuild()
const panel = usePanel()
const only = ref<'open' | 'all'>('all')
const faults = computed(() => build.value?.faults ?? [])
const order = ['danger', 'stops_work', 'defect', 'blemish']
const rows = computed(() =>
  faults.value
    .filter((fault) => only.value === 'all' || isOpenFault(fault))
    .sort(
      (a, b) =>
        Number(isOpenFault(b)) - Number(isOpenFault(a)) ||
        order.indexOf(a.severity) - order.indexOf(b.severity) ||
        b.found.localeCompare(a.found),
    ),
)
const stepOf = (ref?: string) => build.value?.steps?.find((step) => step.ref === ref)?.title
/** What causes most of them, most first, with what share of all that and those before it are. */
function most(of: (fault: Fault) => string) {
  const counts = new Map<string, number>()
  for (const fault of faults.value) counts.set(of(fault), (counts.get(of(fault)) ?? 0) + 1)
  let sum = 0

  return [...counts]
    .sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]))
    .map(([name, count]) => ({ name, count, upTo: (sum += count) / Math.max(1, faults.value.length) }))
}
const paretos = computed(() => [
  { head: 'By kind', rows: most((fault) => (fault.kind ? words(fault.kind) : 'kind not said')) },
  {
    head: 'By where it was found',
    rows: most((fault) => build.value?.steps?.find((step) => step.ref === fault.step)?.section ?? 'at no step'),
  },
  {
    head: 'By whose it is',
    rows: most((fault) => (fault.hand ? { kit: 'of the kit', own: 'by own hand' }[fault.hand] : 'not said yet')),
  },
])
const grave = (severity: string) => ({ danger: severity === 'danger', fails: severity === 'stops_work' })
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Faults</h1>
      <span class="quiet"
        ><span class="figure">{{ overview?.open_faults }}</span> open of
        <span class="figure">{{ faults.length }}</span></span
      >
      <span class="choices push" role="group" aria-label="Faults shown"
        ><button type="button" class="plain" :aria-pressed="only === 'all'" @click="only = 'all'">All</button
        ><button type="button" class="plain" :aria-pressed="only === 'open'" @click="only = 'open'">Open</button></span
      >
    </div>
    <p v-if="overview && overview.danger_faults > 0" class="danger stop" role="status">
      <strong>Not to be powered.</strong>
      {{ overview.danger_faults === 1 ? 'A danger fault is' : `${overview.danger_faults} danger faults are` }} open;
      each needs a fix that says how before it can be closed.
    </p>
    <p v-if="faults.length === 0" class="empty">
      No faults. Press <kbd class="keycap">l</kbd> on any screen to log one: what, how bad, on what. Cause and fix can
      wait.
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>State</th>
          <th>What</th>
          <th>How bad</th>
          <th>On</th>
          <th class="wide-only">Cause</th>
          <th class="wide-only">Fix</th>
          <th class="num wide-only">Cost</th>
          <th class="num wide-only">Lost</th>
          <th class="num wide-only">Found</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="fault in rows"
          :key="fault.ref"
          :class="{ picked: panel.open?.kind === 'fault' && panel.open.ref === fault.ref }"
          @click="panel.show({ kind: 'fault', ref: fault.ref })"
        >
          <td :class="isOpenFault(fault) ? '' : 'quiet'">{{ words(fault.state ?? 'open') }}</td>
          <td class="what">
            <button type="button" class="plain" @click.stop="panel.show({ kind: 'fault', ref: fault.ref })">
              {{ fault.what }}</button><span v-if="fault.photos?.length" class="quiet small"> · picture</span>
          </td>
          <td :class="isOpenFault(fault) ? grave(fault.severity) : 'quiet'">{{ words(fault.severity) }}</td>
          <td class="small">
            {{ fault.need ? roleOf(fault.need) : ''
            }}<span v-if="fault.step" class="quiet block">{{ stepOf(fault.step) }}</span>
          </td>
          <td class="small wide-only">{{ fault.cause }}</td>
          <td class="small wide-only">{{ fault.fix }}</td>
          <td class="num figure wide-only">{{ fault.cost ? money(fault.cost, build?.build.currency ?? '') : '' }}</td>
          <td class="num figure wide-only">{{ fault.lost }}</td>
          <td class="num small quiet wide-only">{{ day(fault.found) }}</td>
        </tr>
      </tbody>
    </table>
    <div v-if="faults.length > 2" class="paretos">
      <section v-for="pareto in paretos" :key="pareto.head" :aria-label="pareto.head">
        <h2>{{ pareto.head }}</h2>
        <table class="ledger">
          <tbody>
            <tr v-for="row in pareto.rows" :key="row.name">
              <td class="small">{{ row.name }}</td>
              <td class="num figure">{{ row.count }}</td>
              <td class="bars" aria-hidden="true">
                <span class="bar" :style="{ width: `${(row.count / faults.length) * 100}%` }" />
              </td>
              <td class="num figure small quiet">{{ percent(row.upTo) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <p class="quiet small">The last column is its share of all faults with those above it.</p>
    </div>
  </div>
</template>

<style scoped>
.paretos {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 16px 32px;
  align-items: start;
  max-width: 1100px;
  margin-top: 20px;
}
.paretos > p {
  grid-column: 1 / -1;
}
.bars {
  width: 40%;
}
.bar {
  display: block;
  height: 10px;
  background: var(--live);
}
.stop {
  border-left: 4px solid currentColor;
  padding: 4px 12px;
}
.what {
  max-width: 300px;
}
.block {
  display: block;
}
td {
  padding-top: 5px !important;
  padding-bottom: 5px !important;
}
</style>
