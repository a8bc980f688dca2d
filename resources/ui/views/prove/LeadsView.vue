<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Lead } from '@/api/client'
import { verdictOrder } from '@/shared/findings'
import PickOne from '@/shared/PickOne.vue'
import PickAll from '@/shared/PickAll.vue'
import EditCell from '@/shared/EditCell.vue'
import { inMetres, inSquare, inUnit } from '@/shared/format'
import ManyBar from '@/shared/ManyBar.vue'
import { nextRef } from '@/shared/refs'
import SortHead from '@/shared/SortHead.vue'
import { useMany } from '@/shared/useMany'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { readLead } from './leadLine'
import ProposedLeads from './ProposedLeads.vue'
import { useAsked } from '@/shared/useAsked'
import { useLeadFields } from './useLeadFields'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'

const { document: build, parts, roleOf } = useBuild()
const { edit } = useEdit()
const { ofLead } = useFindings()
const { ports, fuses, routes, decided, store, storeSize, storeWhole } = useLeadFields()
const panel = usePanel()
const words = ref('')
const verdict = ref('')
const adding = useAsked('add')
const proposing = useAsked('propose')
const addedNow = ref('')
const fresh = ref({ from: '', to: '' })
const reason = ref('')
const line = ref('')
const lineReason = ref('')

const rows = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)

  return (build.value?.leads ?? []).filter(
    (lead) =>
      (verdict.value === '' || worst(lead)?.verdict === verdict.value) &&
      wanted.every((word) =>
        `${lead.ref} ${lead.from} ${lead.to} ${name(lead.from)} ${name(lead.to)}`.toLowerCase().includes(word),
      ),
  )
})
const name = (port: string) => roleOf(port.split('.')[0] ?? '')
const worst = (lead: Lead) => ofLead.value.get(lead.ref)?.[0]
const contacts = (lead: Lead, side: 0 | 1) => {
  const end = lead.ends?.[side]
  const part = parts.value.get(end?.contact ?? '')

  return (
    [end?.contacts_per_pole ? `${end.contacts_per_pole} ×` : '', part?.name ?? end?.termination ?? '']
      .filter(Boolean)
      .join(' ') || '–'
  )
}

const many = useMany<Lead>({
  name: 'leads',
  section: 'leads',
  one: 'lead',
  many: 'leads',
  rows,
  refOf: (lead) => lead.ref,
  columns: () => [
    // By how grave it is, not by the letter.
    { key: 'fit', title: 'Fit', text: (lead) => rank(lead) },
    { key: 'ref', title: 'Lead', text: (lead) => lead.ref },
    { key: 'from', title: 'From', text: (lead) => lead.from, path: ['from'] },
    { key: 'to', title: 'To', text: (lead) => lead.to, path: ['to'] },
    {
      key: 'size',
      title: 'Size',
      text: (lead) => lead.conductor?.size ?? '',
      path: ['conductor', 'size'],
      with: decided,
      order: (lead) => inSquare(lead.conductor?.size),
    },
    {
      key: 'length',
      title: 'Length',
      text: (lead) => lead.length ?? '',
      path: ['length'],
      order: (lead) => inMetres(lead.length),
      value: (text) => inUnit(text, 'mm'),
    },
    { key: 'run', title: 'Run', text: (lead) => lead.route ?? '', path: ['route'], options: routes },
    {
      key: 'bundle',
      title: 'Bundled with',
      text: (lead) => String(lead.bundled_with ?? ''),
      was: (lead) => lead.bundled_with,
      path: ['bundled_with'],
      value: (text) => (/^\d+$/.test(text) ? Number(text) : text),
    },
    { key: 'fuse', title: 'Fuse', text: (lead) => lead.protection ?? '', path: ['protection'], options: fuses.value },
    { key: 'ends', title: 'Ends', text: (lead) => `${contacts(lead, 0)} · ${contacts(lead, 1)}` },
  ],
})
const isOpen = (lead: Lead) => panel.open?.kind === 'lead' && panel.open.ref === lead.ref
const choices = computed(() => fuses.value.map((fuse) => `${fuse.value} ${fuse.title}`).join('\n'))
/** All a row shows: it is drawn again when one of these is another, not whenever anything in the build is. */
const shown = (lead: Lead) => [
  lead,
  worst(lead),
  name(lead.from),
  name(lead.to),
  contacts(lead, 0),
  contacts(lead, 1),
  choices.value,
  isOpen(lead),
  !panel.open,
  many.hidden.value,
]
const rank = (lead: Lead) => {
  const finding = worst(lead)

  return finding === undefined ? '' : `${verdictOrder.indexOf(finding.verdict) + 1} ${finding.verdict}`
}

async function add(): Promise<void> {
  const ref = nextRef('W', build.value?.leads)
  try {
    await edit(`Add lead ${ref}`, [{ section: 'leads', create: { ref, ...fresh.value } }])
    adding.value = false
    fresh.value = { from: '', to: '' }
    panel.show({ kind: 'lead', ref })
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

/** One line, one lead; the field stays where it is for the next. */
async function addLine(): Promise<void> {
  const read = readLead(line.value)
  if ('reason' in read) {
    lineReason.value = read.reason

    return
  }
  const ref = nextRef('W', build.value?.leads)
  try {
    await edit(`Add lead ${ref}`, [{ section: 'leads', create: { ref, ...read.lead } }])
    line.value = lineReason.value = ''
  } catch (error) {
    lineReason.value = reasonOf(error)
  }
}

function togglePropose(): void {
  proposing.value = !proposing.value
  addedNow.value = ''
}
function added(count: number): void {
  addedNow.value = `${count} ${count === 1 ? 'lead is' : 'leads are'} added; Undo takes ${count === 1 ? 'it' : 'them'} back together.`
}

function toggleAdding(): void {
  adding.value = !adding.value
  reason.value = ''
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Leads</h1>
      <span class="quiet">{{ rows.length }} leads, from source to load</span>
      <input
        v-model="words"
        class="field only"
        type="search"
        aria-label="Show only leads with these words"
        placeholder="Show only …"
      />
      <select v-model="verdict" class="field" aria-label="Show only leads that">
        <option value="">any verdict</option>
        <option v-for="one in verdictOrder" :key="one" :value="one">{{ one }}</option>
      </select>
      <span class="push">
        <v-btn :aria-expanded="proposing" @click="togglePropose">Propose leads</v-btn>
        <v-btn color="primary" @click="toggleAdding">Add a lead</v-btn></span
      >
    </div>
    <p v-if="addedNow" role="status">{{ addedNow }}</p>
    <ProposedLeads v-if="proposing" @added="added" />
    <form v-if="adding" class="adding" @submit.prevent="add()">
      <v-autocomplete v-model="fresh.from" label="From" :items="ports" autofocus />
      <v-autocomplete v-model="fresh.to" label="To" :items="ports" />
      <v-btn type="submit" variant="flat" color="primary" :disabled="!fresh.from || !fresh.to">Add</v-btn>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    </form>
    <form class="line" @submit.prevent="addLine()">
      <input
        v-model="line"
        class="field"
        list="lead-ports"
        aria-label="A lead in one line"
        placeholder="psu.out > board.power 1.5mm2 400mm ferrules"
        :aria-invalid="lineReason !== ''"
        @input="lineReason = ''"
      />
      <datalist id="lead-ports">
        <option v-for="port in ports" :key="port.value" :value="port.value">{{ port.title }}</option>
      </datalist>
      <v-btn type="submit" size="small" :disabled="line.trim() === ''">Add this line</v-btn>
      <p v-if="lineReason" class="danger small" role="alert">{{ lineReason }}</p>
    </form>
    <p class="caution small quiet">
      Mains leads: unplug and prove dead before touching. Local code and a licensed electrician decide.
    </p>
    <p v-if="(build?.leads ?? []).length === 0" class="empty">
      No leads yet. Currents, drops and fuses are judged as soon as a lead has a size and a length.
      <button v-if="!proposing" type="button" class="plain link" @click="togglePropose">
        Propose leads for every port
      </button>
    </p>
    <ManyBar v-if="(build?.leads ?? []).length > 0" :many="many" class="wide-only" />
    <table v-if="(build?.leads ?? []).length > 0" class="ledger leads">
      <thead>
        <tr>
          <PickAll class="mark wide-only" :many="many" />
          <SortHead class="fit" :many="many" column="fit" />
          <SortHead class="ref" :many="many" column="ref" />
          <SortHead :many="many" column="from" />
          <SortHead :many="many" column="to" />
          <SortHead class="size" :many="many" column="size" num />
          <SortHead class="length wide-only" :many="many" column="length" num />
          <SortHead class="run wide-only" :many="many" column="run" />
          <SortHead v-if="!panel.open" class="bundle wide-only" :many="many" column="bundle" num />
          <SortHead class="fuse wide-only" :many="many" column="fuse" />
          <SortHead v-if="!panel.open" class="ends wide-only" :many="many" column="ends" />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="lead in many.sorted.value"
          :key="lead.ref"
          v-memo="shown(lead)"
          :data-ref="lead.ref"
          :class="{ picked: isOpen(lead) }"
          @click="panel.show({ kind: 'lead', ref: lead.ref })"
        >
          <PickOne class="wide-only" :many="many" :row="lead" :called="lead.ref" />
          <td v-if="many.shows('fit')">
            <button
              v-if="worst(lead)"
              type="button"
              class="plain"
              :aria-label="`Working: ${worst(lead)!.headline}`"
              @click.stop="panel.show({ kind: 'working', key: worst(lead)!.key })"
            >
              <VerdictMark :verdict="worst(lead)!.verdict" />
            </button>
          </td>
          <td>
            <button type="button" class="plain figure" @click.stop="panel.show({ kind: 'lead', ref: lead.ref })">
              {{ lead.ref }}
            </button>
          </td>
          <td v-if="many.shows('from')">
            {{ name(lead.from) }}<span class="quiet small port">{{ lead.from.split('.')[1] }}</span>
          </td>
          <td v-if="many.shows('to')">
            {{ name(lead.to) }}<span class="quiet small port">{{ lead.to.split('.')[1] }}</span>
          </td>
          <td v-if="many.shows('size')" class="num">
            <EditCell
              figure
              :label="`Size of ${lead.ref}`"
              :value="lead.conductor?.size"
              unit="mm²"
              :save="storeSize(lead)"
            />
          </td>
          <td v-if="many.shows('length')" class="num wide-only">
            <EditCell
              figure
              :label="`Length of ${lead.ref}`"
              :value="lead.length"
              unit="mm"
              :save="store(lead, 'Length', ['length'])"
            />
          </td>
          <td v-if="many.shows('run')" class="wide-only">
            <EditCell
              :label="`Run of ${lead.ref}`"
              :value="lead.route"
              :options="routes"
              :save="store(lead, 'Run', ['route'])"
            />
          </td>
          <td v-if="!panel.open && many.shows('bundle')" class="num wide-only">
            <EditCell
              figure
              :label="`Circuits bundled with ${lead.ref}`"
              :value="lead.bundled_with"
              :save="storeWhole(lead, 'Bundle', ['bundled_with'])"
            />
          </td>
          <td v-if="many.shows('fuse')" class="wide-only">
            <EditCell
              :label="`Fuse of ${lead.ref}`"
              :value="lead.protection"
              :options="fuses"
              :save="store(lead, 'Fuse', ['protection'])"
            />
          </td>
          <td v-if="!panel.open && many.shows('ends')" class="small quiet ends wide-only">
            {{ contacts(lead, 0) }} · {{ contacts(lead, 1) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.adding {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
  align-items: start;
  padding-bottom: 8px;
}
.adding p {
  grid-column: 1 / -1;
  margin: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding-bottom: 6px;
}
.line input {
  flex: 1;
  max-width: 640px;
}
.line p {
  width: 100%;
  margin: 0;
}
.caution {
  margin: 0 0 8px;
}
/* Columns keep their widths, whatever is in them: an edit lays out its row, not the table. */
@media (min-width: 701px) {
  .leads {
    table-layout: fixed;
  }
  .leads th {
    white-space: normal;
    vertical-align: bottom;
  }
  .leads td {
    overflow-wrap: anywhere;
  }
  th.mark {
    width: 38px;
  }
  th.fit {
    width: 46px;
  }
  th.ref {
    width: 60px;
  }
  th.size {
    width: 98px;
  }
  th.length {
    width: 88px;
  }
  th.run {
    width: 78px;
  }
  th.bundle {
    width: 86px;
  }
  th.fuse {
    width: 12%;
  }
  th.ends {
    width: 17%;
  }
}
.port {
  margin-left: 6px;
  white-space: nowrap;
}
</style>
