<script setup lang="ts">
import type { Verdict } from '@/api/client'

/**
 * Read by how far the disc is filled, like an eye opening. Always beside the word, or carrying it for those who cannot
 * see it.
 */
const props = defineProps<{ verdict: Verdict; word?: boolean; size?: number }>()
const words: Record<Verdict, string> = {
  danger: 'Danger',
  fails: 'Fails',
  tight: 'Tight',
  unproven: 'Unproven',
  holds: 'Holds',
}
</script>

<template>
  <span class="mark" :class="props.verdict">
    <svg
      :width="props.size ?? 14"
      :height="props.size ?? 14"
      viewBox="0 0 16 16"
      :role="props.word ? undefined : 'img'"
      :aria-hidden="props.word ? 'true' : undefined"
      :aria-label="props.word ? undefined : words[props.verdict]"
    >
      <circle v-if="verdict === 'holds'" cx="8" cy="8" r="7" fill="currentColor" />
      <template v-else-if="verdict === 'tight'">
        <circle cx="8" cy="8" r="7" fill="none" stroke="currentColor" stroke-width="1.2" />
        <circle cx="8" cy="8" r="4.6" fill="currentColor" />
      </template>
      <circle
        v-else-if="verdict === 'unproven'"
        cx="8"
        cy="8"
        r="6.4"
        fill="none"
        stroke="currentColor"
        stroke-width="1.6"
        stroke-dasharray="2.6 2.2"
      />
      <template v-else-if="verdict === 'fails'">
        <circle cx="8" cy="8" r="6.4" fill="none" stroke="currentColor" stroke-width="1.2" />
        <path d="M1.6 8a6.4 6.4 0 0 0 12.8 0z" fill="currentColor" />
      </template>
      <path
        v-else
        fill="currentColor"
        d="M9.6 1.2 5.2 8.6l2.6.3-2.1 5.7A7 7 0 0 1 9.6 1.2zM11 1.7A7 7 0 0 1 7.2 15l4.2-7-2.7-.4z"
      />
    </svg>
    <span v-if="props.word" class="word">{{ words[props.verdict] }}</span>
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
  vertical-align: middle;
}
.word {
  font-weight: 560;
}
</style>
