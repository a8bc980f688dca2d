<script setup lang="ts" generic="Row">
import type { useMany } from './useMany'

/** Picks a row; with the shift key all from the one picked last. */
const { many, row, called } = defineProps<{ many: ReturnType<typeof useMany<Row>>; row: Row; called: string }>()
</script>

<template>
  <td @click.stop>
    <input
      type="checkbox"
      :aria-label="`Pick ${called}`"
      :checked="many.isPicked(row)"
      @click="many.pick(row, $event.shiftKey)"
    />
  </td>
</template>
