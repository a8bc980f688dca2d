<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted } from 'vue'
import { useHelp } from '@/shared/useHelp'

/** The sentences beside the word that asks for them, inside the page however near its edge the word stands. */
const help = useHelp()
const width = 300
const place = computed(() => {
  const at = help.at
  if (at === null) return {}
  const left = Math.max(8, Math.min(at.left, window.innerWidth - width - 8))

  return at.bottom + 140 > window.innerHeight
    ? { left: `${left}px`, bottom: `${window.innerHeight - at.top + 6}px` }
    : { left: `${left}px`, top: `${at.bottom + 6}px` }
})
const away = () => help.hide()
onMounted(() => {
  window.addEventListener('scroll', away, true)
  window.addEventListener('click', away)
})
onBeforeUnmount(() => {
  window.removeEventListener('scroll', away, true)
  window.removeEventListener('click', away)
})
</script>

<template>
  <div v-if="help.at" class="bubble" role="status" :style="{ ...place, width: `${width}px` }">
    <p v-for="(line, i) in help.lines" :key="i" :class="{ quiet: i === help.lines.length - 1 && i > 0 }">{{ line }}</p>
  </div>
</template>

<style scoped>
.bubble {
  position: fixed;
  z-index: 3000;
  padding: 8px 12px;
  font-size: 13px;
  line-height: 1.4;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: 2px;
  pointer-events: none;
}
.bubble p {
  margin: 0 0 4px;
}
.bubble p:last-child {
  margin: 0;
}
</style>
