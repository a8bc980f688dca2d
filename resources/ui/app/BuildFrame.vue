<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf, type Build, type JudgingState, type Overview, type Pulse, type Trouble } from '@/api/client'
import { mayChange, provideMayChange } from '@/shared/roles'
import { usePhone } from '@/shared/usePhone'
import { derived, useBuild, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import PeopleDialog from '@/views/people/PeopleDialog.vue'
import FaultDialog from '@/views/build/FaultDialog.vue'
import FinderDialog from './FinderDialog.vue'
import PhoneBar from './PhoneBar.vue'
import RepairView from './RepairView.vue'
import SidePanel from './SidePanel.vue'
import TallyStrip from './TallyStrip.vue'
import { stages as every, useStages, type Stage } from './stages'
import { useKeys } from './useKeys'
import { useRoving } from '@/shared/useRoving'
import { useLightAndDark } from '@/shared/useTheme'

const { id, query, role, document: build, overview, trouble, judging } = useBuild()
const { undo, redo } = useEdit()
const route = useRoute()
const router = useRouter()
const panel = usePanel()
const notices = useNotices()
const client = useQueryClient()
const { dark, turn } = useLightAndDark()

const mobile = usePhone()
const main = ref<HTMLElement | null>(null)
useRoving(main)
const finding = ref(false)
const peopled = ref(false)
const faulting = ref(false)
const helping = ref(false)
const stages = useStages()
const here = computed(() => stages.value.find((stage) => stage.key === route.meta.stage) ?? stages.value[2]!)
const group = ref('')
watch(
  () => here.value.views.find((view) => view.key === route.name)?.group,
  (now) => {
    if (now !== undefined) group.value = now
  },
  { immediate: true },
)
const shownViews = computed(() => {
  const groups = [...new Set(here.value.views.map((view) => view.group).filter(Boolean))]
  const mine = groups.includes(group.value) ? group.value : groups[0]

  return here.value.views.filter((view) => view.group === undefined || view.group === mine)
})
const otherGroups = computed(() =>
  [
    ...new Map(
      here.value.views
        .filter((view) => view.group !== undefined && !shownViews.value.includes(view))
        .map((view) => [view.group!, view]),
    ).entries(),
  ].map(([name]) => ({ name, path: here.value.views.find((view) => view.group === name)!.path })),
)
const whyOff = computed(() =>
  overview.value === undefined
    ? ''
    : overview.value.danger_faults > 0
      ? `${overview.value.danger_faults} open danger ${overview.value.danger_faults === 1 ? 'fault' : 'faults'}`
      : `${overview.value.tally.danger} danger ${overview.value.tally.danger === 1 ? 'finding' : 'findings'}`,
)
const waiting = (key: string) => overview.value?.waiting[key as 'choose'] ?? 0
const addressOf = (stage: Stage) => `/builds/${id.value}/${stage.views[0]?.path ?? stage.key}`

/** What is done from anywhere, by a key or from the bar of a phone. */
const acts = {
  find: () => (finding.value = true),
  fault: () => (faulting.value = true),
  undo,
  history: () => panel.show({ kind: 'history' }),
  people: () => (peopled.value = true),
  turn,
}
useKeys({
  f: acts.find,
  l: acts.fault,
  u: undo,
  r: redo,
  h: acts.history,
  t: turn,
  '?': () => (helping.value = true),
  Escape: () => panel.close(),
  ...Object.fromEntries(every.map((_, i) => [String(i + 1), () => void router.push(addressOf(stages.value[i]!))])),
})
const keys = [
  ['f', 'find anything'],
  ['l', 'log a fault'],
  ['u', 'undo the last edit'],
  ['r', 'redo what was undone'],
  ['h', 'history'],
  ['t', 'light or dark'],
  ['1 … 6', 'go to a stage'],
  ['↑ ↓ ← →', 'walk the rows and cells of a table'],
  ['Enter / Esc', 'store or leave a cell'],
  ['Esc', 'close the panel beside'],
  ['?', 'these keys'],
]

watch(id, () => panel.close())
// What was open beside one build says nothing of the next, by whatever way one gets there.
onBeforeUnmount(() => panel.close())

// Another screen may be at the same build: its edits are fetched as soon as they are seen.
let timer = 0
const others = ref<Pulse['people']>([])
const whereIs = (view: string) =>
  every.flatMap((stage) => stage.views).find((one) => one.key === view)?.title ?? 'the bench'
const present = computed(() => others.value.map((one) => ({ name: one.name, at: whereIs(one.view) })))
const may = computed(() => role.value === undefined || mayChange(role.value))
provideMayChange(may)
async function look(): Promise<void> {
  const held = client.getQueryData<Build>(['build', id.value])
  if (held === undefined || document.hidden) {
    return
  }
  try {
    const {
      revision,
      people,
      changes,
      role: mine,
    } = await api.post<Pulse>(`/api/builds/${id.value}/pulse`, {
      view: String(route.name ?? ''),
      seen: held.revision,
    })
    others.value = people
    if (mine !== held.role) {
      client.setQueryData<Build>(['build', id.value], (now) => (now === undefined ? now : { ...now, role: mine }))
    }
    const now = client.getQueryData<Build>(['build', id.value])
    if (now !== undefined && revision > now.revision) {
      await client.invalidateQueries({ queryKey: ['build', id.value] })
      for (const held of derived) {
        void client.invalidateQueries({ queryKey: [held, id.value] })
      }
      const other = changes.find((one) => !one.mine)
      notices.news(
        other === undefined
          ? 'Another screen changed this build; you see it as it is now.'
          : `${other.by}: ${other.label}. You see it as it is now.`,
      )
    }
  } catch {
    // A missed look is made up by the next one.
  }
}
onMounted(() => (timer = window.setInterval(look, 4000)))
onBeforeUnmount(() => clearInterval(timer))

// A large build is judged in the background: its verdicts are fetched as soon as they are there.
let waitingFor = 0
async function fetchVerdicts(): Promise<void> {
  try {
    const now = await api.get<{
      revision: number
      overview: Overview | null
      trouble: Trouble | null
      judging: JudgingState | null
    }>(`/api/builds/${id.value}/overview`)
    client.setQueryData<Build>(['build', id.value], (held) =>
      held === undefined || held.revision !== now.revision
        ? held
        : { ...held, overview: now.overview, trouble: now.trouble, judging: now.judging },
    )
  } catch {
    // The next look makes up for it.
  }
}
watch(
  () => judging.value !== undefined,
  (waits) => {
    clearInterval(waitingFor)
    waitingFor = waits ? window.setInterval(fetchVerdicts, 1500) : 0
  },
  { immediate: true },
)
onBeforeUnmount(() => clearInterval(waitingFor))
const howFar = computed(() =>
  judging.value === undefined
    ? ''
    : judging.value.of === 0
      ? 'waiting for its turn'
      : `${judging.value.done} of ${judging.value.of} checks`,
)
</script>

<template>
  <div class="frame">
    <a class="skip" href="#main" @click.prevent="main?.focus()">To the page itself</a>
    <header v-if="mobile" class="phone">
      <PhoneBar @act="(what) => acts[what]()" />
    </header>
    <header v-if="!mobile" class="top">
      <router-link to="/" class="home" title="All builds"
        ><img src="/mark.svg" alt="All builds" width="24" height="24"
      /></router-link>
      <nav class="runway" aria-label="Stages">
        <router-link
          v-for="stage in stages"
          :key="stage.key"
          :to="addressOf(stage)"
          class="stage"
          :class="{ here: stage === here }"
          :aria-current="stage === here ? 'step' : undefined"
        >
          {{ stage.title
          }}<span v-if="waiting(stage.key) > 0" class="waiting figure" :title="`${waiting(stage.key)} wait for you`">{{
            waiting(stage.key)
          }}</span>
        </router-link>
      </nav>
      <button
        v-if="role !== 'visitor'"
        type="button"
        class="plain people push"
        :class="{ live: present.length > 0 }"
        :title="present.map((one) => `${one.name} is at ${one.at}`).join(', ')"
        @click="peopled = true"
      >
        {{
          present.length === 0
            ? 'People'
            : present.length === 1
              ? `${present[0]!.name} is here`
              : `${present.length} others here`
        }}
      </button>
      <TallyStrip :class="{ push: role === 'visitor' }" />
    </header>
    <div v-if="!mobile" class="second">
      <strong class="name" :title="build?.build.name">{{ build?.build.name }}</strong>
      <nav class="views" :aria-label="`Views of ${here.title}`">
        <router-link
          v-for="view in shownViews"
          :key="view.key"
          :to="`/builds/${id}/${view.path}`"
          class="view-link"
          active-class="here"
          >{{ view.title }}</router-link
        >
        <router-link
          v-for="other in otherGroups"
          :key="other.name"
          :to="`/builds/${id}/${other.path}`"
          class="view-link other"
          >{{ other.name }} →</router-link
        >
      </nav>
      <span v-if="overview && overview.power_forbidden" class="power-off danger" role="status" :title="whyOff"
        >Not to be powered<span v-if="shownViews.length < 6" class="wide-only">: {{ whyOff }}</span></span
      >
      <span
        v-if="judging && overview"
        class="quiet small"
        role="status"
        title="The verdicts shown are of the state before the last edits"
        >Being judged again: {{ howFar }}</span
      >
      <span class="push actions">
        <button type="button" class="plain" @click="finding = true">Find<kbd class="keycap">f</kbd></button>
        <button v-if="may" type="button" class="plain" @click="faulting = true">
          Log a fault<kbd class="keycap">l</kbd>
        </button>
        <button v-if="may" type="button" class="plain wide-only" @click="undo()">
          Undo<kbd class="keycap">u</kbd>
        </button>
        <button v-if="may" type="button" class="plain wide-only" @click="redo()">
          Redo<kbd class="keycap">r</kbd>
        </button>
        <button
          v-if="role !== 'visitor'"
          type="button"
          class="plain wide-only"
          @click="panel.show({ kind: 'history' })"
        >
          History<kbd class="keycap">h</kbd>
        </button>
        <button type="button" class="plain wide-only" @click="turn()">
          {{ dark ? 'Light' : 'Dark' }}<kbd class="keycap">t</kbd>
        </button>
        <button type="button" class="plain wide-only" aria-label="Keys" @click="helping = true">
          <kbd class="keycap">?</kbd>
        </button>
      </span>
    </div>
    <div class="body" :class="{ reading: !may }">
      <main id="main" ref="main" class="main" tabindex="-1">
        <p v-if="!may" class="only-read small" role="status">
          {{
            role === 'visitor'
              ? 'You came by a link: you see this build and change nothing.'
              : 'You may read this build, not change it.'
          }}
        </p>
        <div v-if="query.isError.value" class="view empty">
          <h1>This build cannot be shown</h1>
          <p>{{ reasonOf(query.error.value) }}</p>
          <p><router-link to="/" class="link">All builds</router-link></p>
        </div>
        <RepairView v-else-if="build && trouble" />
        <router-view v-else-if="build && overview" />
        <div v-else-if="build && judging" class="view empty">
          <h1>Being judged</h1>
          <p role="status">
            This build is large: its checks run in the background, {{ howFar }}. The page fills itself when they are
            done; nothing needs to be kept open.
          </p>
        </div>
        <p v-else class="view quiet" role="status">Opening the build …</p>
      </main>
      <SidePanel v-if="panel.open && build" />
    </div>
    <p class="sr-only" role="status">{{ notices.told }}</p>
    <FinderDialog v-model="finding" @fault="faulting = true" @keys="helping = true" />
    <FaultDialog v-model="faulting" />
    <PeopleDialog v-model="peopled" :here="present" />
    <v-dialog v-model="helping" max-width="420">
      <v-card rounded="sm" class="pa-5">
        <h2 class="mb-3">Keys</h2>
        <dl class="facts keys">
          <template v-for="[key, does] in keys" :key="key"
            ><dt>
              <kbd class="keycap">{{ key }}</kbd>
            </dt>
            <dd>{{ does }}</dd></template
          >
        </dl>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
}
.skip {
  position: absolute;
  left: 8px;
  top: -60px;
  z-index: 30;
  padding: 6px 12px;
  color: var(--live);
  background: var(--sheet);
  border: 1px solid var(--live);
}
.skip:focus {
  top: 6px;
}
.top {
  display: flex;
  align-items: stretch;
  gap: 8px;
  min-height: 48px;
  padding: 0 12px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
.home {
  display: flex;
  align-items: center;
  padding-right: 4px;
}
.runway {
  display: flex;
  align-items: stretch;
}
.stage {
  display: flex;
  align-items: center;
  padding: 0 9px;
  color: var(--ink);
  text-decoration: none;
  font-family: var(--figures);
  font-size: 14px;
  position: relative;
}
.stage::after {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  bottom: -1px;
  height: 3px;
  background: transparent;
}
.stage.here::after {
  background: var(--sheen);
}
.stage.here {
  font-weight: 640;
}
.waiting {
  font-size: 11px;
  color: var(--quiet);
  margin-left: 5px;
  align-self: center;
  transform: translateY(-5px);
}
.push {
  margin-left: auto;
}
.second {
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 40px;
  padding: 0 16px;
  border-bottom: 1px solid var(--rule);
  font-size: 14px;
}
.name {
  font-family: var(--figures);
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.views {
  display: flex;
  gap: 4px;
}
.view-link {
  padding: 4px 8px;
  white-space: nowrap;
  color: var(--ink);
  text-decoration: none;
  border-radius: 2px;
}
.view-link.other {
  color: var(--quiet);
}
.view-link.here {
  color: var(--live);
  box-shadow: inset 0 -2px 0 var(--live);
}
.power-off {
  font-weight: 600;
  white-space: nowrap;
}
.actions {
  display: flex;
  gap: 12px;
  white-space: nowrap;
}
.actions button:hover {
  color: var(--live);
}
.body {
  display: flex;
  min-height: 0;
  position: relative;
}
.main {
  flex: 1;
  min-width: 0;
  overflow: auto;
  outline: none;
}
.only-read {
  margin: 0;
  padding: 4px 24px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
.people {
  max-width: 170px;
  padding-right: 14px;
  font-size: 14px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.keys dd {
  text-align: left;
}
@media (max-width: 700px) {
  .phone {
    grid-row: 1 / 3;
  }
}
</style>
