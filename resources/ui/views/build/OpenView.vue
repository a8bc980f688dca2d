<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type OpenItem } from '@/api/client'
import { useBuild, useDerived } from '@/shared/useBuild'

/** Everything that is not as it is meant to stay, in one list, with what releases it. */
const { id } = useBuild()
const { data: items, isError, error } = useDerived<OpenItem[]>('open-items', () => 'open-items')
const which = ref('all')
const kinds = computed(() => [...new Set((items.value ?? []).map((item) => item.kind))])
const shown = computed(() => (items.value ?? []).filter((item) => which.value === 'all' || item.kind === which.value))
const count = (kind: string) => (items.value ?? []).filter((item) => item.kind === kind).length
/** Where each is put right. */
const places: Record<string, (ref: string) => string> = {
  faults: () => 'build/faults',
  steps: (ref) => `build/bench/${ref}`,
  accepted: () => 'prove/fit',
  settings: () => 'prove/settings',
  leads: () => 'prove/leads',
  prints: () => 'buy/prints',
  needs: () => 'choose/parts',
  purchases: () => 'buy/arrivals',
}
const placeOf = (item: OpenItem) => `/builds/${id.value}/${places[item.section]?.(item.ref) ?? 'prove/fit'}`
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Open items</h1>
      <span v-if="items?.length" class="quiet">{{ items.length }}, each until what releases it is there</span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="items && items.length === 0" class="empty">
      Nothing is loose, temporary, waived, claimed or left out, and no fault is open. That is not to say it is safe.
    </p>
    <template v-else-if="items">
      <span class="choices kinds" role="group" aria-label="Which items"
        ><button type="button" class="plain" :aria-pressed="which === 'all'" @click="which = 'all'">
          all <span class="quiet">{{ items.length }}</span></button
        ><button
          v-for="kind in kinds"
          :key="kind"
          type="button"
          class="plain"
          :aria-pressed="which === kind"
          @click="which = kind"
        >
          {{ kind }} <span class="quiet">{{ count(kind) }}</span>
        </button></span
      >
      <table class="ledger stack" tabindex="0">
        <thead>
          <tr>
            <th>Kind</th>
            <th>What</th>
            <th>Until</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in shown" :key="`${item.section}/${item.ref}/${item.kind}`">
            <td :class="item.kind === 'danger' ? 'danger' : 'quiet'" class="small kind">{{ item.kind }}</td>
            <td>
              <router-link class="link" :to="placeOf(item)">{{ item.what }}</router-link>
            </td>
            <td class="small">{{ item.release }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>

<style scoped>
.kinds {
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.kind {
  white-space: nowrap;
}
</style>
