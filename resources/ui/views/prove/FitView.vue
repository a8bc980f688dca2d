<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { FindingSummary, Verdict } from '@/api/client'
import { margin } from '@/shared/format'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild } from '@/shared/useBuild'
import { verdictOrder } from '@/shared/findings'
import { useFindings } from '@/shared/useFindings'
import { useFirst } from '@/shared/useFirst'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import CauseList from './CauseList.vue'
import RemedyTogether from './RemedyTogether.vue'
import HelpTerms from '@/shared/HelpTerms.vue'
import HelpWord from '@/shared/HelpWord.vue'

const { id, overview, roleOf } = useBuild()
const { findings } = useFindings()
const route = useRoute()
const panel = usePanel()
const by = ref<'cause' | 'verdict' | 'part' | 'trade'>('cause')
const verdict = ref<Verdict | null>(null)
const words = ref('')
const together = ref(false)
watch(
  () => route.query.verdict,
  (asked) => {
    verdict.value = verdictOrder.find((one) => one === asked) ?? null
    if (verdict.value === 'holds') by.value = 'verdict'
  },
  { immediate: true },
)

const shown = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)

  return findings.value.filter(
    (finding) =>
      (verdict.value === null || finding.verdict === verdict.value) &&
      wanted.every((word) =>
        `${finding.check} ${finding.title} ${finding.subject.label} ${finding.headline}`.toLowerCase().includes(word),
      ),
  )
})

/** What holds has no cause: it is listed by itself. */
function only(one: Verdict): void {
  verdict.value = one
  if (one === 'holds') by.value = 'verdict'
}

/** Thousands of findings come onto the page as they are scrolled to. */
const end = ref<HTMLElement | null>(null)
const first = useFirst(() => shown.value.length, end)
watch([by, verdict, words], () => (first.value = 150))

/** Groups in the order of their worst finding; the server has sorted the findings by how much they matter. */
const groups = computed(() => {
  const found = new Map<string, FindingSummary[]>()
  for (const finding of shown.value) {
    const names =
      by.value === 'verdict'
        ? [finding.verdict]
        : by.value === 'trade'
          ? [finding.trade]
          : finding.subject.needs.length > 0
            ? finding.subject.needs
            : ['']
    for (const name of names) {
      const list = found.get(name)
      if (list === undefined) found.set(name, [finding])
      else list.push(finding)
    }
  }

  let left = first.value

  return [...found.entries()]
    .flatMap(([name, all]) => {
      const list = all.slice(0, Math.max(0, left))
      left -= all.length

      return list.length === 0 ? [] : [{ name, list }]
    })
    .map(({ name, list }) => ({
      name,
      list,
      title:
        by.value === 'part'
          ? name === ''
            ? 'The machine as a whole'
            : roleOf(name)
          : name.charAt(0).toUpperCase() + name.slice(1),
    }))
})
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Fit</h1>
      <span v-if="by === 'cause'" class="quiet"
        >{{ overview?.causes.length ?? 0 }} to look at, worst consequence first;
        {{ overview?.tally.holds ?? 0 }} findings hold</span
      >
      <span v-else class="quiet">{{ shown.length }} of {{ findings.length }} findings, what matters most first</span>
      <span class="push tools">
        <v-btn
          v-if="findings.some((one) => ['danger', 'fails'].includes(one.verdict))"
          :aria-expanded="together"
          @click="together = !together"
          >Fix several</v-btn
        >
        <input
          v-model="words"
          class="field only"
          type="search"
          aria-label="Show only findings with these words"
          placeholder="Show only …"
        />
        <span class="choices" role="group" aria-label="Verdict">
          <button type="button" class="plain" :aria-pressed="verdict === null" @click="verdict = null">All</button>
          <button
            v-for="one in verdictOrder"
            :key="one"
            type="button"
            class="plain"
            :aria-pressed="verdict === one"
            @click="only(one)"
          >
            <VerdictMark :verdict="one" word :size="11" />
          </button>
        </span>
        <span class="choices" role="group" aria-label="Grouped by">
          <button
            v-for="one in ['cause', 'verdict', 'part', 'trade'] as const"
            :key="one"
            type="button"
            class="plain"
            :aria-pressed="by === one"
            @click="by = one"
          >
            by {{ one }}
          </button>
        </span>
      </span>
    </div>
    <RemedyTogether v-if="together" />
    <p v-if="findings.length === 0" class="empty">
      Nothing to judge yet. A check speaks as soon as a part has a lead, a place in the heat or a screw:
      <router-link class="link" :to="`/builds/${id}/choose/parts`">add parts</router-link>, then
      <router-link class="link" :to="`/builds/${id}/prove/leads`">leads between them</router-link>.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
    </p>
    <CauseList v-else-if="by === 'cause'" :verdict="verdict" :words="words" />
    <p v-else-if="shown.length === 0" class="quiet">Nothing matches.</p>
    <table v-else class="ledger findings stack">
      <thead>
        <tr>
          <th>Verdict</th>
          <th>Check</th>
          <th>On</th>
          <th>What it says</th>
          <th class="num"><HelpTerms text="Margin" /></th>
          <th v-if="!panel.open" class="wide-only">Weakest evidence</th>
        </tr>
      </thead>
      <tbody v-for="group in groups" :key="group.name">
        <tr v-if="by !== 'verdict'" class="grouped">
          <th colspan="6">{{ group.title }}</th>
        </tr>
        <tr
          v-for="finding in group.list"
          :key="group.name + finding.key"
          :class="{ picked: panel.open?.kind === 'working' && panel.open.key === finding.key }"
          @click="panel.show({ kind: 'working', key: finding.key })"
        >
          <td><VerdictMark :verdict="finding.verdict" word /></td>
          <td class="check">
            <button type="button" class="plain" @click.stop="panel.show({ kind: 'working', key: finding.key })">
              <HelpWord inside :check="finding.check"
                ><span class="figure quiet">{{ finding.check }}</span> {{ finding.title }}</HelpWord
              >
            </button>
          </td>
          <td class="on under">{{ finding.subject.label }}</td>
          <td class="says under">{{ finding.headline }}</td>
          <td class="num figure">{{ margin(finding.margin) }}</td>
          <td v-if="!panel.open" class="quiet small wide-only">{{ finding.weakest }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="by !== 'cause' && first < shown.length" ref="end">
      <button type="button" class="plain link small" @click="first += 150">
        {{ shown.length - first }} more: show the next
      </button>
    </p>
    <p v-if="overview" class="quiet small mt-4">
      A planning aid. For mains work, local code and a licensed electrician decide.
    </p>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.findings tr {
  cursor: pointer;
}
.findings td {
  padding-top: 5px;
  padding-bottom: 5px;
  vertical-align: top;
}
.check {
  min-width: 150px;
}
.on {
  min-width: 130px;
  max-width: 220px;
}
.says {
  max-width: 560px;
}
@media (max-width: 700px) {
  .on {
    font-weight: 600;
  }
}
</style>
