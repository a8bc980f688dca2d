<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Verdict } from '@/api/client'
import { mayChange } from '@/shared/roles'
import { useBuild } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'
import { useStages } from './stages'
import TallyStrip from './TallyStrip.vue'

/** The whole chrome of a phone in one row: where one is, what is grave, and a sheet with all the rest. */
type Act = 'find' | 'fault' | 'undo' | 'history' | 'people' | 'turn'
const emit = defineEmits<{ act: [what: Act] }>()
const { id, role, document: build, overview } = useBuild()
const route = useRoute()
const stages = useStages()
const open = ref(false)
const grave: Verdict[] = ['danger', 'fails', 'unproven']
const here = computed(
  () =>
    stages.value.flatMap((stage) => stage.views).find((view) => view.key === route.name)?.title ??
    build.value?.build.name,
)
watch(
  () => route.fullPath,
  () => (open.value = false),
)
function act(what: Act): void {
  open.value = false
  emit('act', what)
}
</script>

<template>
  <div class="bar">
    <router-link to="/" class="home" title="All builds"
      ><img src="/mark.svg" alt="All builds" width="24" height="24"
    /></router-link>
    <button type="button" class="plain where" :aria-expanded="open" aria-controls="all-places" @click="open = !open">
      <strong>{{ here }}</strong> <span aria-hidden="true">{{ open ? '▴' : '▾' }}</span>
      <span class="sr-only">All places and actions</span>
    </button>
    <nav v-if="overview" class="grave" aria-label="Tally">
      <router-link
        v-for="verdict in grave"
        :key="verdict"
        :to="`/builds/${id}/prove/fit?verdict=${verdict}`"
        :class="verdict"
        ><VerdictMark :verdict="verdict" :size="13" /><span class="figure">{{
          overview.tally[verdict]
        }}</span></router-link
      >
    </nav>
    <button type="button" class="plain find" @click="act('find')">Find</button>
  </div>
  <p v-if="overview?.power_forbidden" class="off danger" role="status">Not to be powered</p>
  <div v-if="open" id="all-places" class="sheet">
    <p class="name">{{ build?.build.name }}</p>
    <TallyStrip />
    <nav aria-label="All places">
      <template v-for="stage in stages" :key="stage.key">
        <h2>{{ stage.title }}</h2>
        <router-link
          v-for="view in stage.views"
          :key="view.key"
          :to="`/builds/${id}/${view.path}`"
          :aria-current="view.key === route.name ? 'page' : undefined"
          >{{ view.title }}</router-link
        >
      </template>
    </nav>
    <div class="acts">
      <template v-if="mayChange(role)">
        <button type="button" class="plain link" @click="act('fault')">Log a fault</button>
        <button type="button" class="plain link" @click="act('undo')">Undo</button>
      </template>
      <template v-if="role !== 'visitor'">
        <button type="button" class="plain link" @click="act('history')">History</button>
        <button type="button" class="plain link" @click="act('people')">People</button>
      </template>
      <button type="button" class="plain link" @click="act('turn')">Light or dark</button>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 0 8px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
.home {
  display: flex;
}
.where {
  flex: 1;
  min-width: 0;
  min-height: 44px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.where strong {
  font-family: var(--figures);
}
.grave {
  display: flex;
}
.grave a {
  display: flex;
  align-items: center;
  gap: 3px;
  min-height: 44px;
  padding: 0 5px;
  color: inherit;
  text-decoration: none;
}
.find {
  min-height: 44px;
  padding: 0 6px;
  color: var(--live);
}
.off {
  margin: 0;
  padding: 2px 10px;
  font-size: 12.5px;
  font-weight: 600;
  border-bottom: 1px solid var(--rule);
}
.sheet {
  position: absolute;
  inset: 45px 0 0;
  z-index: 20;
  overflow: auto;
  padding: 10px 14px 40px;
  background: var(--paper);
}
.name {
  margin: 0 0 6px;
  font-family: var(--figures);
}
nav h2 {
  margin: 12px 0 2px;
  font-size: 15px;
}
nav a {
  color: var(--ink);
}
.sheet > nav:not(.tally) a {
  display: inline-block;
  min-height: 36px;
  padding: 7px 14px 5px 0;
}
nav a[aria-current] {
  color: var(--live);
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  margin-top: 18px;
}
.acts button {
  min-height: 36px;
}
</style>
