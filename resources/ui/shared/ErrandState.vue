<script setup lang="ts">
import { computed } from 'vue'
import type { Errand } from '@/api/client'

/** How far something in the background is, with the way to stop it and to try it again. */
const props = defineProps<{ errand: Errand; what: string }>()
defineEmits<{ stop: []; again: [] }>()
const goes = computed(() => props.errand.state === 'waiting' || props.errand.state === 'running')
const share = computed(() => (props.errand.of > 0 ? Math.round((100 * props.errand.done) / props.errand.of) : 0))
</script>

<template>
  <div v-if="goes" class="errand" role="status">
    <span class="small"
      >{{ what }}: {{ errand.state === 'waiting' ? 'waits for its turn' : share > 0 ? `${share} %` : 'under way' }}.
      <span class="quiet">You may leave this page meanwhile.</span></span
    >
    <v-progress-linear
      :model-value="share"
      :indeterminate="share === 0"
      color="primary"
      height="4"
      :aria-label="what"
    />
    <v-btn size="small" @click="$emit('stop')">Stop</v-btn>
  </div>
  <div v-else-if="errand.state === 'stopped' || errand.state === 'failed'" class="errand">
    <span class="small">{{ what }}: {{ errand.state === 'stopped' ? 'stopped' : 'did not work' }}.</span>
    <v-btn size="small" @click="$emit('again')">Try again</v-btn>
  </div>
</template>

<style scoped>
.errand {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: center;
  max-width: 560px;
  margin: 8px 0;
}
.errand .v-progress-linear {
  grid-column: 1;
  grid-row: 2;
}
.errand .v-btn {
  grid-column: 2;
  grid-row: 1 / span 2;
}
</style>
