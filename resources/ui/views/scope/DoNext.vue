<script setup lang="ts">
import { computed } from 'vue'
import { useNext } from '@/shared/useNext'

/** What comes next, above the brief, until all of it is done. */
const { next } = useNext()
const open = computed(() => next.value.filter((one) => !one.done))
</script>

<template>
  <section v-if="open.length" class="next" aria-label="What comes next">
    <h2>What comes next</h2>
    <ol>
      <li v-for="one in next" :key="one.key" :class="{ done: one.done }">
        <span aria-hidden="true" class="mark">{{ one.done ? '✓' : '○' }}</span>
        <span v-if="one.done" class="quiet">{{ one.says }}<span class="sr-only">, done</span></span>
        <router-link v-else class="link" :to="one.to">{{ one.says }}</router-link>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.next {
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 8px 16px 10px;
  margin-bottom: 14px;
}
.next h2 {
  margin: 0 0 4px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 2;
  column-gap: 28px;
}
li {
  break-inside: avoid;
  padding: 2px 0;
}
.mark {
  display: inline-block;
  width: 1.4em;
}
@media (max-width: 700px) {
  ol {
    columns: 1;
  }
}
</style>
