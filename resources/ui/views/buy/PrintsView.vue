<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Change, type Prints } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import FirstAction from '@/shared/FirstAction.vue'
import { day, inUnit, percent, whole } from '@/shared/format'
import { written } from '@/shared/decimals'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { freeRef, refFrom } from '@/shared/refs'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import { saidOf } from '@/shared/specs'
import MeshField from './MeshField.vue'
import PrinterTable from './PrinterTable.vue'
import PrintForm from './PrintForm.vue'

/** What is still to be printed, on which printer and in which order; what came off them; and the reels it takes. */
const { document: build, needs, parts } = useBuild()
const { set, edit, remove } = useEdit()
const notices = useNotices()
const panel = usePanel()
const { data: prints, isError, error } = useDerived<Prints>('prints', () => 'prints')
const noting = ref<{ part: string | null; printer: string | null; pieces: number; fit: boolean } | null>(null)
const printed = computed(() => (build.value?.parts ?? []).some((part) => part.family === 'printed_part'))
const hours = (number: number) => `${written(number.toFixed(number < 10 ? 1 : 0))} h`
const grams = (number: number) => `${written(number.toFixed(0))} g`
const longest = computed(() => Math.max(1, ...(prints.value?.printers ?? []).map((one) => one.hours / one.daily)))
const runs = computed(() => new Map((build.value?.prints ?? []).map((run) => [run.ref, run])))
const states = {
  none: '',
  weigh: 'weigh one of them',
  'no recipe': 'weighed; volume, walls and infill are not said',
  thin: 'thin: look at all of this print',
  'as recipe': 'as its recipe',
} as const
function open(part: string | null): void {
  const need = [...needs.value.values()].find((one) => one.choice === part)
  if (need !== undefined) panel.show({ kind: 'part', ref: need.ref })
}
function note(job: Prints['printers'][number]['jobs'][number], printer: string): void {
  noting.value = {
    part:
      job.part ??
      prints.value?.printers.flatMap((one) => one.jobs).find((one) => one.part && one.stuff === job.stuff)?.part ??
      null,
    printer,
    pieces: job.pieces,
    fit: job.part === null,
  }
}
/** More of a reel that is on the list, or one that was not. */
async function list(reel: Prints['reels'][number]): Promise<void> {
  const need = (build.value?.needs ?? []).find((one) => {
    const specs = parts.value.get(one.choice ?? '')?.specs

    return one.family === 'filament' && said(specs?.material) === reel.material && isColour(reel, said(specs?.colour))
  })
  const name = `${reel.stuff} filament`
  const stem = refFrom(name, 'reel')
  const ref = freeRef(stem, (one) => needs.value.has(one) || parts.value.has(one))
  const colour = reel.stuff.slice(0, -reel.material.length).trim()
  const changes: Change[] =
    need !== undefined
      ? [
          {
            section: 'needs',
            ref: need.ref,
            set: [{ path: ['quantity'], was: need.quantity ?? null, to: (need.quantity ?? 1) + reel.more }],
          },
        ]
      : [
          {
            section: 'parts',
            create: {
              ref,
              family: 'filament',
              name,
              specs: {
                material: reel.material,
                mass: `${reel.reel} g`,
                ...(colour ? { colour } : {}),
              },
            },
          },
          {
            section: 'needs',
            create: { ref, role: name, family: 'filament', quantity: reel.more, candidates: [ref], choice: ref },
          },
        ]
  try {
    await edit(`${reel.more} × ${name} to buy`, changes)
    notices.say(`${name} is on the list of what to order; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
const said = (spec: unknown) => saidOf(spec) ?? ''
const isColour = (reel: Prints['reels'][number], colour: string) =>
  reel.stuff === reel.material || reel.stuff === `${colour.toLowerCase()} ${reel.material}`
const saveRun =
  (ref: string, name: string, path: 'good' | 'failed' | 'mass' | 'time', unit = '') =>
  (text: string) =>
    set(
      `Print of ${name}`,
      'prints',
      ref,
      [path],
      runs.value.get(ref)?.[path] ?? null,
      text === '' ? null : unit === '' ? whole(text) : inUnit(text, unit),
    )
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Prints</h1>
      <span v-if="prints && prints.pieces > 0" class="quiet"
        >{{ prints.pieces }} pieces, {{ hours(prints.hours) }}, {{ grams(prints.grams)
        }}<template v-if="prints.finish">; the last is done on {{ day(prints.finish) }}</template></span
      >
      <span v-if="printed" class="push"
        ><v-btn @click="noting = { part: null, printer: null, pieces: 1, fit: false }">Note a print</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="prints && !printed" class="empty">
      Nothing of this build is printed. Choose a printed part for a need, and its file, time and plastic are planned
      here.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
    </p>
    <template v-else-if="prints">
      <p v-if="!build?.printers?.length && prints.waiting.length" class="aside">
        No printer is noted yet: say what prints it below, with its size, what it prints and how long a day it may run.
      </p>
      <p v-else-if="!prints.pieces && !prints.waiting.length && !prints.apart.length" class="empty">
        All printed parts are there, or bought.
      </p>
      <ul v-if="prints.waiting.length" class="waits" aria-label="Waits for a printer">
        <li v-for="line in prints.waiting" :key="line.part">
          <button type="button" class="plain link" @click="open(line.part)">{{ line.pieces }} × {{ line.name }}</button>
          <span class="unproven small">{{ line.why }}</span> <MeshField :part="line.part" />
        </li>
      </ul>
      <section v-for="printer in prints.printers" :key="printer.ref" :aria-label="printer.name">
        <template v-if="printer.jobs.length">
          <h2>
            {{ printer.name }}
            <span class="quiet small"
              >{{ hours(printer.hours) }} at {{ written(String(printer.daily)) }} h a day, until {{ day(printer.to)
              }}<template v-if="printer.pace !== 1">; it takes {{ percent(printer.pace) }} of what is planned</template
              ><template v-if="printer.weighs !== 1">, and weighs {{ percent(printer.weighs) }}</template></span
            >
          </h2>
          <p v-if="printer.assumed.length" class="unproven small">
            Taken for granted: {{ printer.assumed.join('; ') }}.
          </p>
          <div class="strip" aria-hidden="true">
            <span
              v-for="job in printer.jobs"
              :key="job.key"
              class="job"
              :class="{ fit: job.part === null, change: job.change }"
              :style="{ width: `${(job.hours / printer.daily / longest) * 100}%` }"
              :title="`${job.pieces} × ${job.name}`"
            />
          </div>
          <table class="ledger stack" tabindex="0">
            <thead>
              <tr>
                <th>Part</th>
                <th class="num">Pieces</th>
                <th>From</th>
                <th class="num wide-only">Plastic</th>
                <th class="num wide-only">Takes</th>
                <th class="num wide-only">Done</th>
                <th class="num">Begin by</th>
                <th />
              </tr>
            </thead>
            <tbody>
              <tr v-for="job in printer.jobs" :key="job.key">
                <td class="name">
                  <button v-if="job.part" type="button" class="plain" @click="open(job.part)">{{ job.name }}</button><em
                    v-else
                    >{{ job.name }}: slot, insert, seat and first layer, before the batch</em
                  ><span v-if="job.assumed.length && job.part" class="unproven small block"
                    >taken for granted: {{ job.assumed.join('; ') }} <MeshField :part="job.part"
                  /></span>
                </td>
                <td class="num figure">{{ job.pieces }}</td>
                <td class="small">
                  {{ job.stuff }}<span v-if="job.change" class="quiet small block">change the reel</span>
                </td>
                <td class="num figure wide-only">{{ grams(job.grams) }}</td>
                <td class="num figure wide-only">{{ hours(job.hours) }}</td>
                <td class="num figure wide-only">{{ day(job.to) }}</td>
                <td class="num figure" data-of="begin by">{{ day(job.start_by) }}</td>
                <td class="num">
                  <v-btn size="small" :aria-label="`Printed: ${job.name}`" @click="note(job, printer.ref)"
                    >Printed</v-btn
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </template>
      </section>
      <section v-if="prints.apart.length" aria-label="For the finished machine">
        <h2>For the finished machine</h2>
        <p v-for="line in prints.apart" :key="line.part" class="small">
          {{ line.pieces }} × {{ line.name }}: {{ line.why }}
        </p>
      </section>
      <section v-if="prints.reels.length" aria-label="Reels">
        <h2>Reels</h2>
        <table class="ledger stack" tabindex="0">
          <thead>
            <tr>
              <th>Plastic</th>
              <th class="num">To come, a tenth more</th>
              <th class="num wide-only">Used</th>
              <th class="num">Reels there</th>
              <th class="num wide-only">On their way</th>
              <th class="num">To buy</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="reel in prints.reels" :key="reel.stuff">
              <td>
                {{ reel.stuff
                }}<span v-if="reel.assumed.length" class="unproven small block">{{ reel.assumed.join('; ') }}</span>
              </td>
              <td class="num figure">{{ grams(reel.grams) }}</td>
              <td class="num figure wide-only">{{ reel.used ? grams(reel.used) : '' }}</td>
              <td class="num figure">{{ reel.there }}</td>
              <td class="num figure wide-only">{{ reel.coming || '' }}</td>
              <td class="num figure" :class="{ tight: reel.more > 0 }">
                {{ reel.more || '' }}
              </td>
              <td class="num">
                <v-btn
                  v-if="reel.more"
                  size="small"
                  :aria-label="`Put it on the list: ${reel.stuff}`"
                  @click="list(reel)"
                  >Put it on the list</v-btn
                >
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-if="prints.runs.length" aria-label="What came off">
        <h2>What came off</h2>
        <table class="ledger stack" tabindex="0">
          <thead>
            <tr>
              <th>Part</th>
              <th class="wide-only">Printer</th>
              <th class="num">Good</th>
              <th class="num">Failed</th>
              <th class="num">One weighs</th>
              <th class="num wide-only">Took</th>
              <th>Batch</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="run in prints.runs" :key="run.ref">
              <td>
                {{ run.name }}
                <span class="quiet small">{{ day(run.date) }}{{ run.fit ? ', fit piece' : '' }}</span
                ><span v-if="runs.get(run.ref)?.notes" class="quiet small block">{{ runs.get(run.ref)?.notes }}</span>
              </td>
              <td class="small quiet wide-only">{{ run.printer ?? '–' }}</td>
              <td class="num" data-of="good">
                <EditCell
                  figure
                  :label="`Good of ${run.name}`"
                  :value="run.good"
                  :save="saveRun(run.ref, run.name, 'good')"
                />
              </td>
              <td class="num" data-of="failed" :class="{ fails: run.failed > 0 }">
                <EditCell
                  figure
                  :label="`Failed of ${run.name}`"
                  :value="run.failed"
                  :save="saveRun(run.ref, run.name, 'failed')"
                />
              </td>
              <td class="num" data-of="one weighs">
                <EditCell
                  figure
                  :label="`Weight of one of ${run.name}`"
                  :value="runs.get(run.ref)?.mass"
                  unit="g"
                  placeholder="weigh it"
                  :save="saveRun(run.ref, run.name, 'mass', 'g')"
                />
              </td>
              <td class="num wide-only">
                <EditCell
                  figure
                  :label="`Time of ${run.name}`"
                  :value="runs.get(run.ref)?.time"
                  unit="h"
                  placeholder="not said"
                  :save="saveRun(run.ref, run.name, 'time', 'h')"
                />
              </td>
              <td
                class="small"
                :class="{ fails: run.state === 'thin', holds: run.state === 'as recipe', quiet: run.state === 'weigh' }"
              >
                {{ run.share === null ? '' : percent(run.share) }} {{ states[run.state] }}
              </td>
              <td class="num">
                <button
                  type="button"
                  class="plain quiet small"
                  :aria-label="`Delete this print of ${run.name}`"
                  @click="remove(`Delete a print of ${run.name}`, `Print of ${run.name}`, 'prints', run.ref)"
                >
                  delete
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <PrinterTable />
      <p class="quiet small">
        A printer left alone wants heat or smoke sensing that cuts its power; ABS and ASA want their air led out.
      </p>
    </template>
    <v-dialog
      :model-value="noting !== null"
      max-width="520"
      aria-label="What came off the printer"
      @update:model-value="noting = null"
    >
      <PrintForm v-if="noting" v-bind="noting" @done="noting = null" />
    </v-dialog>
  </div>
</template>

<style scoped>
h2 {
  margin: 18px 0 4px;
}
.block {
  display: block;
}
.name {
  max-width: 380px;
}
.waits {
  list-style: none;
  padding: 0;
  margin: 0 0 12px;
}
.waits li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.strip {
  display: flex;
  height: 12px;
  margin: 2px 0 6px;
}
.job {
  border: 1.5px solid var(--live);
  border-right-width: 0;
  min-width: 2px;
}
.job:last-child {
  border-right-width: 1.5px;
}
.job.fit {
  background: var(--live);
}
.job.change {
  border-left: 4px solid var(--ink);
}
</style>
