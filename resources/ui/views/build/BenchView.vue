<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import PickOne from '@/shared/PickOne.vue'
import PickAll from '@/shared/PickAll.vue'
import EditCell from '@/shared/EditCell.vue'
import { isOpenFault } from '@/shared/faults'
import { dayDone, hoursLeft, leftOut } from '@/shared/forecast'
import { clock, inUnit, percent } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'
import { usePanel } from '@/shared/usePanel'
import { useAsked } from '@/shared/useAsked'
import ManyBar from '@/shared/ManyBar.vue'
import { useMany } from '@/shared/useMany'
import { useKept } from '@/offline/useKept'
import { useSteps } from './useSteps'

const { id, document: build, overview } = useBuild()
const { edit } = useEdit()
const { byRef, rows, next, runs, worked, store } = useSteps()
const kept = useKept(id, build)
const many = useMany<(typeof rows.value)[number]>({
  name: 'steps',
  section: 'steps',
  one: 'step',
  many: 'steps',
  rows,
  refOf: ({ step }) => step.ref,
  columns: () => [
    { key: 'ref', title: 'Name', text: ({ step }) => step.ref },
    { key: 'section', title: 'Section', text: ({ step }) => step.section, path: ['section'] },
    { key: 'title', title: 'What to do', text: ({ step }) => step.title, path: ['title'] },
    {
      key: 'guide',
      title: 'Guide time',
      text: ({ step }) => step.guide ?? '',
      path: ['guide'],
      value: (text) => inUnit(text, 'h'),
    },
    { key: 'notes', title: 'Notes', text: ({ step }) => step.notes ?? '', path: ['notes'] },
  ],
  removes: (gone) => {
    const refs = new Set(gone.map(({ step }) => step.ref))

    return [
      // What came after them comes after nothing of them any more, and a fault found there stays.
      ...(build.value?.steps ?? [])
        .filter((step) => !refs.has(step.ref) && (step.after ?? []).some((one) => refs.has(one)))
        .map((step) => ({
          section: 'steps' as const,
          ref: step.ref,
          set: [{ path: ['after'], was: step.after, to: step.after!.filter((one) => !refs.has(one)) }],
        })),
      ...(build.value?.faults ?? [])
        .filter((fault) => refs.has(fault.step ?? ''))
        .map((fault) => ({
          section: 'faults' as const,
          ref: fault.ref,
          set: [{ path: ['step'], was: fault.step, to: null }],
        })),
      ...[...refs].map((ref) => ({ section: 'steps' as const, ref, delete: true as const })),
    ]
  },
})
const panel = usePanel()
const adding = useAsked('add')
const fresh = ref({ section: '', title: '', guide: '', after: '' })
const reason = ref('')
const openFaults = computed(() => (build.value?.faults ?? []).filter(isOpenFault))
const faultsAt = (step: string) => openFaults.value.filter((fault) => fault.step === step).length
const missing = (gates: (typeof rows.value)[number]['gates']) =>
  gates
    .filter((one) => one.kind === 'part' || one.kind === 'fault')
    .map((one) => one.says)
    .join('; ')
const isFirstOf = (i: number) => i === 0 || rows.value[i]!.step.section !== rows.value[i - 1]!.step.section

async function add(): Promise<void> {
  try {
    await edit(`Add step ${fresh.value.title}`, [
      {
        section: 'steps',
        create: {
          ref: nextRef('s', build.value?.steps),
          position: Math.max(0, ...(build.value?.steps ?? []).map((step) => step.position ?? 0)) + 10,
          section: fresh.value.section || 'Steps',
          title: fresh.value.title,
          ...(fresh.value.guide ? { guide: inUnit(fresh.value.guide, 'h') } : {}),
          ...(fresh.value.after ? { after: [fresh.value.after] } : {}),
        },
      },
    ])
    adding.value = false
    fresh.value = { ...fresh.value, title: '', guide: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Bench</h1>
      <span v-if="overview" class="quiet"
        ><span class="figure">{{ hoursLeft(overview.forecast) }}</span> h left at
        {{ percent(overview.forecast.pace) }} of the guide (from {{ overview.forecast.pace_from }})<template
          v-if="overview.forecast.date"
          >, done {{ overview.forecast.steps_without_guide > 0 ? '' : 'about '
          }}{{ dayDone(overview.forecast) }}</template
        ><template v-if="leftOut(overview.forecast)">; {{ leftOut(overview.forecast) }}</template></span
      >
      <span class="push">
        <v-btn :to="`/builds/${id}/build/derived`">Steps from the model</v-btn>
        <v-btn @click="adding = !adding">Add a step</v-btn>
        <v-btn v-if="next" variant="flat" color="primary" :to="`/builds/${id}/build/bench/${next.step.ref}`"
          >To the bench: {{ next.step.title }}</v-btn
        >
      </span>
    </div>
    <p v-if="kept" class="quiet small">
      On this device since {{ kept.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }) }}: the bench
      opens without a network, and what you write there is sent later.
    </p>
    <form v-if="adding" class="adding" @submit.prevent="add()">
      <v-text-field v-model="fresh.section" label="Section" placeholder="Frame" /><v-text-field
        v-model="fresh.title"
        label="What to do"
        autofocus
      /><v-text-field v-model="fresh.guide" label="Guide time" placeholder="1.5 h" />
      <v-select
        v-model="fresh.after"
        label="After"
        clearable
        :items="(build?.steps ?? []).map((step) => ({ value: step.ref, title: step.title }))"
      />
      <v-btn type="submit" variant="flat" color="primary" :disabled="fresh.title.trim() === ''">Add</v-btn>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    </form>
    <p v-if="rows.length === 0" class="empty">
      No steps yet. They follow from joints, parts and leads: take them from the model, or add the first one with what
      it comes after. The order, the forecast and the bench screens follow from them.
    </p>
    <ManyBar v-if="rows.length > 0" :many="many" class="wide-only" />
    <table v-if="rows.length > 0" class="ledger">
      <thead>
        <tr>
          <PickAll class="wide-only" :many="many" />
          <th>State</th>
          <th>Step</th>
          <th class="wide-only">Waits for</th>
          <th class="num wide-only">Guide</th>
          <th class="num">Worked</th>
          <th class="wide-only">To measure</th>
          <th>Reading</th>
          <th class="wide-only" />
        </tr>
      </thead>
      <tbody>
        <template v-for="(row, i) in rows" :key="row.step.ref">
          <tr v-if="isFirstOf(i)" class="grouped">
            <th colspan="9">{{ row.step.section }}</th>
          </tr>
          <tr
            :class="{
              picked: panel.open
                ? panel.open.kind === 'step' && panel.open.ref === row.step.ref
                : next?.step.ref === row.step.ref,
            }"
            @click="panel.show({ kind: 'step', ref: row.step.ref })"
          >
            <PickOne class="wide-only" :many="many" :row="row" :called="row.step.title" />
            <td class="small" :class="{ quiet: row.step.state === 'done' }">
              {{
                row.step.state === 'done'
                  ? 'done'
                  : row.step.state === 'skipped'
                    ? 'skipped'
                    : runs(row.step)
                      ? 'running'
                      : row.waitsFor.length || missing(row.gates)
                        ? 'waits'
                        : 'ready'
              }}
            </td>
            <td>
              <router-link class="step" :to="`/builds/${id}/build/bench/${row.step.ref}`" @click.stop>{{
                row.step.title
              }}</router-link><span v-if="faultsAt(row.step.ref)" class="fails small">
                · {{ faultsAt(row.step.ref) }} open fault</span
              >
            </td>
            <td class="small quiet wide-only">
              {{
                [...row.waitsFor.map((ref) => byRef.get(ref)?.title ?? ref), missing(row.gates)]
                  .filter(Boolean)
                  .join(', ')
              }}
            </td>
            <td class="num wide-only">
              <EditCell
                figure
                :label="`Guide time of ${row.step.title}`"
                :value="row.step.guide"
                unit="h"
                :save="store(row.step, 'Guide time', ['guide'])"
              />
            </td>
            <td class="num figure" :class="{ live: runs(row.step) }">
              {{ worked(row.step) > 0 ? clock(worked(row.step)) : '' }}
            </td>
            <td class="small wide-only">
              <template v-if="row.step.check"
                >{{ row.step.check.what }}:
                <span class="figure">{{ row.step.check.nominal }} ± {{ row.step.check.tolerance }}</span></template
              >
            </td>
            <td class="reads">
              <template v-if="row.step.check && row.verdict"
                ><VerdictMark :verdict="row.verdict" />
                <span class="figure small">{{ row.step.check.measured ?? 'not yet' }}</span></template
              >
            </td>
            <td class="wide-only">
              <button
                type="button"
                class="plain link small"
                :aria-label="`Edit ${row.step.title}`"
                @click.stop="panel.show({ kind: 'step', ref: row.step.ref })"
              >
                edit
              </button>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.adding {
  display: grid;
  grid-template-columns: 150px 1fr 110px 200px auto;
  gap: 12px;
  align-items: start;
  padding-bottom: 12px;
}
.adding p {
  grid-column: 1 / -1;
  margin: 0;
}
.reads {
  white-space: nowrap;
}
.step {
  color: inherit;
}
.step:hover {
  color: var(--live);
}
@media (max-width: 700px) {
  .adding {
    grid-template-columns: 1fr;
  }
}
</style>
