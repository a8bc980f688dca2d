<script setup lang="ts">
import type { FindingSummary } from '@/api/client'
import { usePanel } from './usePanel'
import VerdictMark from './VerdictMark.vue'

/** What the checks say of one thing; each line opens its working. */
defineProps<{ findings: FindingSummary[]; none: string; named?: boolean }>()
const panel = usePanel()
</script>

<template>
  <h3 class="mt-4 mb-1">What the checks say</h3>
  <p v-if="findings.length === 0" class="quiet small">{{ none }}</p>
  <ul>
    <li v-for="finding in findings" :key="finding.key">
      <button type="button" class="plain finding" @click="panel.show({ kind: 'working', key: finding.key })">
        <VerdictMark :verdict="finding.verdict" />
        <span
          ><span v-if="named" class="quiet">{{ finding.subject.label }}: </span>{{ finding.headline }}</span
        >
      </button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.finding {
  display: grid;
  grid-template-columns: 20px 1fr;
  padding: 3px 0;
  font-size: 14px;
}
.finding:hover {
  color: var(--live);
}
</style>
