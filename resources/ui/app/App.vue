<script setup lang="ts">
import { nextTick, onMounted, watch } from 'vue'
import { useWaiting } from '@/offline/useWaiting'
import { useAbsorb } from '@/shared/useBuild'
import { keptAt } from '@/shared/drafts'
import { useNotices } from '@/shared/useNotices'
import HelpBubble from './HelpBubble.vue'
import WaitingBar from './WaitingBar.vue'

const notices = useNotices()
const waiting = useWaiting()
waiting.onSent(useAbsorb())
onMounted(() => {
  void waiting.send()
  const kept = keptAt(location.pathname)
  if (kept.length > 0) {
    notices.say(`What you typed in “${kept[0]}” before the page was loaded again is kept: go into the field.`)
  }
})
// The line takes its room from the page: what is being worked on stays in sight, its reason with it.
watch(
  () => [notices.shown, notices.line],
  async () => {
    await nextTick()
    const at = document.activeElement?.closest('main :is(input, textarea, select, button)')
    ;(at?.closest('td') ?? at)?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <v-app>
    <div class="app">
      <WaitingBar />
      <div class="page"><router-view /></div>
      <!-- A line of its own below the page: what just happened hides nothing that is being worked on. -->
      <div role="status" class="notice" :class="{ shown: notices.shown, danger: notices.grave }">
        <template v-if="notices.shown"
          ><span>{{ notices.line }}</span
          ><v-btn size="small" @click="notices.shown = false">Close</v-btn></template
        >
      </div>
    </div>
    <HelpBubble />
  </v-app>
</template>

<style scoped>
.app {
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
  height: 100dvh;
}
.page {
  grid-row: 2;
  min-height: 0;
  overflow: auto;
}
.notice {
  grid-row: 3;
}
.notice.shown {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  padding: 4px 16px;
  font-size: 14px;
  background: var(--sheet);
  border-top: 2px solid var(--live);
}
.notice.shown.danger {
  border-top-color: currentcolor;
}
</style>
