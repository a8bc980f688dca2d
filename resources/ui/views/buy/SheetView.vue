<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Arrival } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived } from '@/shared/useBuild'

/** What to look at and what to read on paper, for a bench without a screen. */
const { document: build } = useBuild()
const { data: lines, isError, error } = useDerived<Arrival[]>('arrivals', () => 'arrivals')
const only = ref<'unseen' | 'all'>('unseen')
const shown = computed(() => (lines.value ?? []).filter((line) => only.value === 'all' || line.unseen > 0))
const print = () => window.print()
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>{{ build?.build.name }}: what came</h1>
      <span class="choices controls" role="group" aria-label="Which parts"
        ><button type="button" class="plain" :aria-pressed="only === 'unseen'" @click="only = 'unseen'">
          not looked at</button
        ><button type="button" class="plain" :aria-pressed="only === 'all'" @click="only = 'all'">
          all that came
        </button></span
      >
      <span class="push controls"
        ><v-btn color="primary" :disabled="shown.length === 0" @click="print()">Print</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="lines && shown.length === 0" class="empty">
      {{ lines.length === 0 ? 'Nothing has arrived yet.' : 'All that came was looked at.' }}
      <FirstAction path="buy/orders">See what is ordered</FirstAction>
    </p>
    <p v-else class="small">
      Count first, under trays too. Unplugged unless it says otherwise; mains only by somebody practised.
    </p>
    <table v-for="line in shown" :key="line.part" class="ledger part">
      <thead>
        <tr>
          <th colspan="2">{{ line.name }}</th>
          <th>{{ line.pieces }} ordered, {{ line.here }} noted as here</th>
          <th>counted</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="check in line.checks" :key="check.what">
          <td class="what">{{ check.what }}</td>
          <td class="small how">
            {{ check.how }} <em>{{ check.with }}</em>
          </td>
          <td class="figure small">{{ check.between ?? 'good / not good' }}</td>
          <td class="blank">
            {{ check.read ?? (check.looked === null ? '' : check.looked.good ? 'good' : 'not good') }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.part {
  max-width: 190mm;
  margin-bottom: 14px;
  break-inside: avoid;
}
.part th {
  position: static;
  color: var(--ink);
}
.what {
  width: 24%;
}
.blank {
  width: 22%;
  border-left: 1px solid var(--rule);
}
@media print {
  .controls {
    display: none;
  }
  .view {
    padding: 0;
  }
}
</style>
