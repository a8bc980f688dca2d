<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, reasonOf, type Finding } from '@/api/client'
import { margin } from '@/shared/format'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'
import HelpWord from '@/shared/HelpWord.vue'
import VerdictMark from '@/shared/VerdictMark.vue'
import AcceptForm from './AcceptForm.vue'
import RemedyList from './RemedyList.vue'
import WorkingLines from '@/shared/WorkingLines.vue'

/** The working behind a verdict: question, lines of working, limit, margin, what it rests on, source. */
const props = defineProps<{ findingKey: string }>()
const { id, roleOf, needs, document: build } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const panel = usePanel()
const router = useRouter()
const query = useQuery({
  queryKey: computed(() => ['finding', id.value, props.findingKey]),
  queryFn: () => api.get<Finding>(`/api/builds/${id.value}/findings/${props.findingKey}`),
  retry: false,
})
const finding = computed(() => query.data.value)
const card = computed(() => catalogue.value?.checks.find((check) => check.id === finding.value?.check))
const thresholds = computed(() =>
  Object.entries(Array.isArray(card.value?.thresholds) ? {} : (card.value?.thresholds ?? {})),
)
const tellable = {
  bought: 'once its part is in hand',
  made: 'once it is made',
  powered: 'once it is under power',
} as const
const changing = ref<string | null>(null)
const wanted = ref({ value: '', reason: '' })
const reason = ref('')
const leadsOf = (subject: Finding['subject']) => (subject.kind === 'lead' ? [subject.ref] : subject.leads.slice(0, 12))
const evidenceLabel = (key: string) => catalogue.value?.evidence.find((one) => one.key === key)?.label ?? key
const ownLimit = (key: string) =>
  build.value?.limits?.find((limit) => limit.check === finding.value?.check && limit.key === key)

/** Opens the place where an input can be changed. */
function go(where: string): void {
  const [kind, ref = ''] = where.split('/')
  if (kind === 'parts') {
    const need =
      [...needs.value.values()].find((one) => one.choice === ref && finding.value?.subject.needs.includes(one.ref)) ??
      [...needs.value.values()].find((one) => one.choice === ref)
    if (need !== undefined) panel.show({ kind: 'part', ref: need.ref })
  } else if (kind === 'leads') {
    panel.show({ kind: 'lead', ref })
  } else if (kind === 'mates') {
    panel.show({ kind: 'joint', ref })
  } else if (kind === 'scenarios') {
    void router.push(`/builds/${id.value}/prove/power`)
  } else if (kind === 'settings' || kind === 'zones') {
    void router.push(`/builds/${id.value}/prove/${kind === 'zones' ? 'heat' : 'settings'}`)
  } else if (kind === 'places') {
    void router.push(`/builds/${id.value}/prove/picture?place=${ref}`)
  } else if (kind === 'clearances') {
    void router.push(`/builds/${id.value}/prove/stack-up`)
  } else if (kind === 'axes' && /drive|homing/.test(where)) {
    void router.push(`/builds/${id.value}/prove/motion`)
  } else if (kind === 'site' || kind === 'brief' || kind === 'workpieces' || kind === 'axes') {
    void router.push(`/builds/${id.value}/scope/brief`)
  }
}

async function change(key: string, remove = false): Promise<void> {
  const own = ownLimit(key)
  const check = finding.value!.check
  try {
    await edit(remove ? `Default limit "${key}" of ${check}` : `Limit "${key}" of ${check}`, [
      ...(own === undefined ? [] : [{ section: 'limits', ref: `${check}-${key}`, delete: true }]),
      ...(remove
        ? []
        : [
            {
              section: 'limits',
              create: {
                check,
                key,
                value: /^[\d.\s]+$/.test(wanted.value.value) ? `${wanted.value.value} %` : wanted.value.value,
                reason: wanted.value.reason,
              },
            },
          ]),
    ])
    changing.value = null
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

function openLimit(key: string, standard: string): void {
  changing.value = changing.value === key ? null : key
  wanted.value = { value: ownLimit(key)?.value ?? standard, reason: '' }
}
</script>

<template>
  <p v-if="query.isPending.value" class="quiet" role="status">Working it out …</p>
  <p v-else-if="query.isError.value" class="quiet">{{ reasonOf(query.error.value) }}</p>
  <article v-else-if="finding">
    <p class="small quiet mb-1">
      <HelpWord :check="finding.check"
        ><span class="figure">{{ finding.check }}</span> {{ finding.title }}</HelpWord
      >
    </p>
    <h2><VerdictMark :verdict="finding.verdict" word :size="17" /></h2>
    <p class="says">{{ finding.headline }}</p>
    <p v-if="finding.otherwise" class="unproven small">
      Would read “{{ finding.otherwise }}” on stronger evidence; this check asks for
      {{ evidenceLabel(finding.asks) }} or better.
    </p>
    <dl v-if="finding.figures.length" class="facts">
      <template v-for="one in finding.figures" :key="one.key">
        <dt>{{ one.label }}</dt>
        <dd class="figure">{{ one.value }}</dd>
      </template>
    </dl>
    <p class="quiet small">{{ finding.question }}</p>

    <h3>
      Working<span v-if="finding.scenario" class="quiet small"> in “{{ finding.scenario }}”</span>
    </h3>
    <WorkingLines v-if="finding.working.length" :steps="finding.working" />
    <p v-else class="quiet small">Nothing could be worked out yet.</p>
    <template v-if="finding.missing.length">
      <h3>Not known yet</h3>
      <ul class="missing">
        <li v-for="one in finding.missing" :key="one">{{ one }}</li>
      </ul>
    </template>
    <template v-if="finding.whatever.length">
      <h3>Whatever it is</h3>
      <ul class="missing">
        <li v-for="one in finding.whatever" :key="one.where">
          <button type="button" class="plain input" @click="go(one.where)">{{ one.label }}</button>
          <span class="figure"> {{ one.from }} to {{ one.to }}</span>
        </li>
      </ul>
    </template>
    <p v-if="finding.later" class="quiet small">It can be told {{ tellable[finding.later] }}.</p>
    <dl class="facts mt-3">
      <template v-if="finding.limit"
        ><dt>Limit</dt>
        <dd>{{ finding.limit }}</dd></template
      >
      <template v-if="finding.margin !== null"
        ><dt>Margin</dt>
        <dd class="figure">{{ margin(finding.margin, 1) }}</dd></template
      >
    </dl>

    <template v-if="finding.inputs.length">
      <h3>Rests on</h3>
      <table class="ledger">
        <tbody>
          <tr v-for="input in finding.inputs" :key="input.where">
            <td>
              <button type="button" class="plain input" @click="go(input.where)">{{ input.label }}</button>
            </td>
            <td class="num figure">{{ input.value }}</td>
            <td class="small" :class="{ unproven: input.evidence === 'assumed' || input.evidence === 'listing' }">
              {{ evidenceLabel(input.evidence) }}<span v-if="input.source" class="quiet block">{{ input.source }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </template>

    <RemedyList v-if="['danger', 'fails', 'tight'].includes(finding.verdict)" :finding-key="props.findingKey" />
    <AcceptForm v-if="finding.verdict !== 'holds'" :finding="finding" />

    <h3>Source</h3>
    <p class="small">{{ finding.source }}</p>
    <template v-if="thresholds.length">
      <h3>Limits you may set</h3>
      <ul class="missing small">
        <li v-for="[key, threshold] in thresholds" :key="key">
          {{ threshold.meaning }}: <span class="figure">{{ ownLimit(key)?.value ?? threshold.default }}</span>
          <button type="button" class="plain link" @click="openLimit(key, threshold.default)">change</button>
          <template v-if="ownLimit(key)">
            ·
            <button type="button" class="plain link" @click="change(key, true)">back to {{ threshold.default }}</button
            ><span class="quiet block">“{{ ownLimit(key)!.reason }}”</span></template
          >
          <form v-if="changing === key" class="limit" @submit.prevent="change(key)">
            <input v-model="wanted.value" aria-label="New limit" size="6" /><input
              v-model="wanted.reason"
              aria-label="Reason"
              placeholder="reason, kept in the record"
              size="24"
            />
            <v-btn type="submit" size="small" color="primary" :disabled="wanted.reason.trim() === ''">Set</v-btn>
            <span v-if="reason" class="danger block" role="alert">{{ reason }}</span>
          </form>
        </li>
      </ul>
    </template>

    <h3>Concerns</h3>
    <p class="small">
      <template v-for="(need, i) in finding.subject.needs" :key="need"
        ><template v-if="i"> · </template
        ><button type="button" class="plain link" @click="panel.show({ kind: 'part', ref: need })">
          {{ roleOf(need) }}
        </button></template
      >
      <template v-if="finding.subject.kind === 'mate'">
        ·
        <button
          type="button"
          class="plain link"
          @click="panel.show({ kind: 'joint', ref: finding.subject.ref.split('/')[0] ?? '' })"
        >
          the joint
        </button></template
      >
      <template v-for="lead in leadsOf(finding.subject)" :key="lead">
        ·
        <button type="button" class="plain link" @click="panel.show({ kind: 'lead', ref: lead })">
          lead {{ lead }}
        </button></template
      >
    </p>
  </article>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
}
.says {
  font-size: 16px;
  margin: 6px 0;
}
.missing {
  padding-left: 18px;
  margin: 0;
}
.input {
  text-align: left;
}
.input:hover {
  color: var(--live);
}
.block {
  display: block;
}
.limit {
  padding: 4px 0;
}
.limit input {
  font: inherit;
  height: 26px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  color: var(--ink);
  border-radius: 2px;
  padding: 0 4px;
  margin-right: 4px;
}
table.ledger th {
  background: var(--sheet);
}
</style>
