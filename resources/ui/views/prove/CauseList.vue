<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Cause, FindingSummary, Verdict } from '@/api/client'
import { margin } from '@/shared/format'
import { useBuild } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useFirst } from '@/shared/useFirst'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import HelpWord from '@/shared/HelpWord.vue'

/** What has to be looked at: one line a cause, worst consequence first, each opening to all that is said because of it. */
const props = defineProps<{ verdict: Verdict | null; words: string }>()
const { overview } = useBuild()
const { findings } = useFindings()
const panel = usePanel()
const opened = ref(new Set<string>())
const byKey = computed(() => new Map(findings.value.map((finding) => [finding.key, finding])))
const of = (cause: Cause) =>
  cause.findings.map((key) => byKey.value.get(key)).filter((one): one is FindingSummary => one !== undefined)
const shown = computed(() => {
  const wanted = props.words.toLowerCase().split(/\s+/).filter(Boolean)

  return (overview.value?.causes ?? []).filter(
    (cause) =>
      (props.verdict === null || cause.verdict === props.verdict) &&
      wanted.every((word) =>
        `${cause.says} ${of(cause)
          .map((one) => `${one.check} ${one.title} ${one.subject.label}`)
          .join(' ')}`
          .toLowerCase()
          .includes(word),
      ),
  )
})
const end = ref<HTMLElement | null>(null)
const first = useFirst(() => shown.value.length, end)
watch(
  () => [props.verdict, props.words],
  () => (first.value = 150),
)

function open(cause: Cause): void {
  if (cause.findings.length === 1) {
    panel.show({ kind: 'working', key: cause.key })
  } else if (!opened.value.delete(cause.key)) {
    opened.value.add(cause.key)
  }
}
const later = computed(() => findings.value.filter((finding) => finding.later !== null))
const stages = {
  bought: 'once its part is in hand',
  made: 'once it is made',
  powered: 'once it is under power',
} as const
const listing = ref(false)
</script>

<template>
  <p v-if="shown.length === 0" class="quiet">
    {{ words || verdict ? 'Nothing matches.' : 'Nothing has to be looked at now.' }}
  </p>
  <table v-else class="ledger causes stack">
    <thead>
      <tr>
        <th>Verdict</th>
        <th>Check</th>
        <th>What it is</th>
        <th class="num">Findings</th>
      </tr>
    </thead>
    <tbody v-for="cause in shown.slice(0, first)" :key="cause.key">
      <tr :class="{ picked: panel.open?.kind === 'working' && panel.open.key === cause.key }" @click="open(cause)">
        <td>
          <VerdictMark :verdict="cause.verdict as Verdict" word />
          <span v-if="cause.could === 'danger' || cause.could === 'fails'" class="small quiet could"
            >could be {{ cause.could }}</span
          >
        </td>
        <td class="check">
          <button
            type="button"
            class="plain"
            :aria-expanded="cause.findings.length > 1 ? opened.has(cause.key) : undefined"
            @click.stop="open(cause)"
          >
            <HelpWord inside :check="of(cause)[0]?.check"
              ><span class="figure quiet">{{ of(cause)[0]?.check }}</span> {{ of(cause)[0]?.title }}</HelpWord
            >
          </button>
        </td>
        <td class="says under">{{ cause.says }}</td>
        <td class="num figure">{{ cause.findings.length }}</td>
      </tr>
      <template v-if="opened.has(cause.key)">
        <tr
          v-for="finding in of(cause)"
          :key="finding.key"
          class="under"
          :class="{ picked: panel.open?.kind === 'working' && panel.open.key === finding.key }"
          @click="panel.show({ kind: 'working', key: finding.key })"
        >
          <td><VerdictMark :verdict="finding.verdict" word :size="11" /></td>
          <td class="check">
            <button type="button" class="plain" @click.stop="panel.show({ kind: 'working', key: finding.key })">
              <HelpWord inside :check="finding.check"
                ><span class="figure quiet">{{ finding.check }}</span> {{ finding.title }}</HelpWord
              >
            </button>
          </td>
          <td class="says under">{{ finding.subject.label }}: {{ finding.headline }}</td>
          <td class="num figure">{{ margin(finding.margin) }}</td>
        </tr>
      </template>
    </tbody>
  </table>
  <p v-if="first < shown.length" ref="end">
    <button type="button" class="plain link small" @click="first += 150">
      {{ shown.length - first }} more: show the next
    </button>
  </p>

  <section v-if="overview?.accepted.length" aria-label="Accepted" class="mt-5">
    <h2>Accepted, with a reason</h2>
    <table class="ledger causes stack">
      <tbody>
        <tr v-for="one in overview.accepted" :key="one.ref" @click="panel.show({ kind: 'working', key: one.finding })">
          <td><VerdictMark :verdict="one.verdict as Verdict" word :size="11" /></td>
          <td class="check">
            <button type="button" class="plain" @click.stop="panel.show({ kind: 'working', key: one.finding })">
              <span class="figure quiet">{{ one.finding.split('/')[0] }}</span> {{ one.headline }}
            </button>
          </td>
          <td class="says under">
            “{{ one.why }}” {{ one.who }}<template v-if="one.until">, until {{ one.until }}</template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>

  <section v-if="later.length" aria-label="Later" class="mt-5">
    <h2>
      <button type="button" class="plain" :aria-expanded="listing" @click="listing = !listing">
        {{ later.length }} can be told later {{ listing ? '▾' : '▸' }}
      </button>
    </h2>
    <ul v-if="listing" class="small">
      <li v-for="finding in later" :key="finding.key">
        <button type="button" class="plain link" @click="panel.show({ kind: 'working', key: finding.key })">
          {{ finding.check }} {{ finding.title }}, {{ finding.subject.label }}
        </button>
        <span class="quiet"> {{ stages[finding.later!] }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.causes tr {
  cursor: pointer;
}
.causes td {
  padding-top: 5px;
  padding-bottom: 5px;
  vertical-align: top;
}
.check {
  min-width: 150px;
  max-width: 230px;
}
.says {
  max-width: 720px;
}
.could {
  display: block;
}
.under td {
  background: var(--sheet);
}
.under td:first-child {
  padding-left: 18px;
}
@media (max-width: 700px) {
  .check {
    min-width: 0;
    max-width: 110px;
  }
  .causes th:nth-child(4),
  .causes td:nth-child(4) {
    display: none;
  }
}
</style>
