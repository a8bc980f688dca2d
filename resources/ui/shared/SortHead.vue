<script setup lang="ts" generic="Row">
import type { useMany } from './useMany'

/** The head of a column that sorts by it: up, down, and as it was. */
const { many, column } = defineProps<{ many: ReturnType<typeof useMany<Row>>; column: string; num?: boolean }>()
</script>

<template>
  <th v-if="many.shows(column)" :class="{ num }" :aria-sort="many.sortedBy(column)">
    <button type="button" class="plain head" @click="many.sortBy(column)">
      {{ many.columns().find((one) => one.key === column)?.title
      }}<span aria-hidden="true" class="way">{{
        { ascending: '↑', descending: '↓', none: '' }[many.sortedBy(column)]
      }}</span>
    </button>
  </th>
</template>

<style scoped>
.head {
  font: inherit;
  color: inherit;
}
.head:hover {
  color: var(--live);
}
.way {
  display: inline-block;
  width: 0.9em;
}
</style>
