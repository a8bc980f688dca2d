<script setup lang="ts">
import { nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { usePanel } from '@/shared/usePanel'
import FaultPanel from '@/views/build/FaultPanel.vue'
import StepPanel from '@/views/build/StepPanel.vue'
import DecisionPanel from '@/views/choose/DecisionPanel.vue'
import LibraryPanel from '@/views/choose/LibraryPanel.vue'
import PartPanel from '@/views/choose/PartPanel.vue'
import JointPanel from '@/views/prove/JointPanel.vue'
import LeadPanel from '@/views/prove/LeadPanel.vue'
import WorkingPanel from '@/views/prove/WorkingPanel.vue'
import HistoryPanel from './HistoryPanel.vue'
import TermPanel from './TermPanel.vue'

const panel = usePanel()
const aside = ref<HTMLElement | null>(null)

/** Opened by a key, the panel has the focus; closed, whoever opened it has it again. Who is typing keeps it. */
let opener: HTMLElement | null = null
const typing = () => document.activeElement?.matches('input, select, textarea') === true
watch(
  () => panel.open,
  async (now, before) => {
    if (now === null) return
    const active = document.activeElement
    if (active instanceof HTMLElement && aside.value?.contains(active) !== true) opener = active
    if (JSON.stringify(before) === JSON.stringify(now)) return
    await nextTick()
    if (!typing() && panel.open !== null) aside.value?.focus({ preventScroll: true })
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  if (opener?.isConnected && !typing()) opener.focus({ preventScroll: true })
})
</script>

<template>
  <aside v-if="panel.open" ref="aside" class="panel" tabindex="-1" aria-label="Beside the view">
    <div class="bar">
      <button v-if="panel.trail.length > 0" type="button" class="plain link small" @click="panel.back()">Back</button>
      <button type="button" class="plain link small push" @click="panel.close()">
        Close<kbd class="keycap">Esc</kbd>
      </button>
    </div>
    <WorkingPanel v-if="panel.open.kind === 'working'" :key="panel.open.key" :finding-key="panel.open.key" />
    <PartPanel
      v-else-if="panel.open.kind === 'part'"
      :key="panel.open.ref"
      :need-ref="panel.open.ref"
      :wire="panel.open.wire"
    />
    <LeadPanel v-else-if="panel.open.kind === 'lead'" :key="panel.open.ref" :lead-ref="panel.open.ref" />
    <FaultPanel v-else-if="panel.open.kind === 'fault'" :key="panel.open.ref" :fault-ref="panel.open.ref" />
    <StepPanel v-else-if="panel.open.kind === 'step'" :key="panel.open.ref" :step-ref="panel.open.ref" />
    <JointPanel v-else-if="panel.open.kind === 'joint'" :key="panel.open.ref" :mate-ref="panel.open.ref" />
    <DecisionPanel v-else-if="panel.open.kind === 'decision'" :key="panel.open.ref" :decision-ref="panel.open.ref" />
    <LibraryPanel v-else-if="panel.open.kind === 'library'" :key="panel.open.id" :item="panel.open.id" />
    <TermPanel v-else-if="panel.open.kind === 'term'" :key="panel.open.word" :word="panel.open.word" />
    <HistoryPanel v-else />
  </aside>
</template>

<style scoped>
.panel {
  flex: 0 0 34%;
  min-width: 380px;
  max-width: 560px;
  overflow: auto;
  border-left: 1px solid var(--rule);
  background: var(--sheet);
  padding: 8px 18px 32px;
}
.panel:focus {
  outline: none;
}
.bar {
  display: flex;
  min-height: 24px;
}
.push {
  margin-left: auto;
}
@media (max-width: 900px) {
  .panel {
    position: absolute;
    inset: 0;
    z-index: 5;
    max-width: none;
    min-width: 0;
  }
}
@media print {
  .panel {
    display: none;
  }
}
</style>
