<script setup lang="ts">
import { ref } from 'vue'

/** Something that is told once: to be copied now. */
defineProps<{ text: string; label: string }>()
const copied = ref(false)
async function copy(text: string): Promise<void> {
  await navigator.clipboard.writeText(text)
  copied.value = true
}
</script>

<template>
  <p class="once" role="status">
    <strong>{{ label }}</strong> It is shown this once.
    <input
      class="field"
      readonly
      :value="text"
      :aria-label="label"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <button type="button" class="plain link" @click="copy(text)">{{ copied ? 'Copied' : 'Copy' }}</button>
  </p>
</template>

<style scoped>
.once {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 8px 12px;
  border: 1px solid var(--live);
  background: var(--sheet);
}
input {
  flex: 1;
  min-width: 260px;
  font-family: var(--figures);
}
</style>
