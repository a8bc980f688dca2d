<script setup lang="ts" generic="Row">
import { computed } from 'vue'
import type { useMany } from './useMany'

/** The head of the column that picks rows: all that are shown, or none. */
const { many } = defineProps<{ many: ReturnType<typeof useMany<Row>> }>()
const all = computed(() => many.picked.value.size > 0 && many.picked.value.size === many.sorted.value.length)
</script>

<template>
  <th>
    <input
      type="checkbox"
      :aria-label="`Pick all ${many.called}`"
      :checked="all"
      @change="many.pickAll(($event.target as HTMLInputElement).checked)"
    />
  </th>
</template>
