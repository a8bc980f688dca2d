<script setup lang="ts">
import { computed, ref } from 'vue'
import { useCatalogue } from '@/shared/useBuild'

/** The standard tables the checks read, each with its source. */
const { data: catalogue } = useCatalogue()
const at = ref('motor-frames')
const table = computed(() => catalogue.value?.tables.find((one) => one.key === at.value))
</script>

<template>
  <div class="tables">
    <div class="choices mb-3">
      <button
        v-for="one in catalogue?.tables"
        :key="one.key"
        type="button"
        class="plain"
        :aria-pressed="at === one.key"
        @click="at = one.key"
      >
        {{ one.title }}
      </button>
    </div>
    <template v-if="table">
      <p class="quiet small">{{ table.source }}.</p>
      <table class="ledger">
        <thead>
          <tr>
            <th v-for="(column, i) in table.columns" :key="column" :class="{ num: i > 0 }">{{ column }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in table.rows" :key="String(row[0])">
            <td v-for="(cell, i) in row" :key="i" class="figure" :class="{ num: i > 0 }">{{ cell ?? '–' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>

<style scoped>
.tables {
  overflow: auto;
  padding: 0 24px 32px 0;
  max-width: 860px;
}
</style>
