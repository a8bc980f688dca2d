<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Lead } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { readLead } from './leadLine'
import { useLeadFields } from './useLeadFields'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'

const { document: build, roleOf } = useBuild()
const { edit } = useEdit()
const { ofLead } = useFindings()
const { ports, fuses, routes, store, storeWhole } = useLeadFields()
const panel = usePanel()
const words = ref('')
const adding = ref(false)
const fresh = ref({ from: '', to: '' })
const reason = ref('')
const line = ref('')
const lineReason = ref('')

const rows = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)

  return (build.value?.leads ?? []).filter((lead) =>
    wanted.every((word) =>
      `${lead.ref} ${lead.from} ${lead.to} ${name(lead.from)} ${name(lead.to)}`.toLowerCase().includes(word),
    ),
  )
})
const name = (port: string) => roleOf(port.split('.')[0] ?? '')
const worst = (lead: Lead) => ofLead.value.get(lead.ref)?.[0]
const contacts = (lead: Lead, side: 0 | 1) => {
  const end = lead.ends?.[side]
  const part = build.value?.parts?.find((one) => one.ref === end?.contact)

  return (
    [end?.contacts_per_pole ? `${end.contacts_per_pole} ×` : '', part?.name ?? end?.termination ?? '']
      .filter(Boolean)
      .join(' ') || '–'
  )
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
      <span class="push"><v-btn color="primary" @click="toggleAdding">Add a lead</v-btn></span>
    </div>
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
      No leads yet. Add one from a supply's output to what it feeds; currents, drops and fuses are judged as soon as it
      has a size and a length.
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>Fit</th>
          <th>Lead</th>
          <th>From</th>
          <th>To</th>
          <th class="num">Size</th>
          <th class="num">Length</th>
          <th>Run</th>
          <th class="num">Bundled with</th>
          <th>Fuse</th>
          <th v-if="!panel.open">Ends</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="lead in rows"
          :key="lead.ref"
          :class="{ picked: panel.open?.kind === 'lead' && panel.open.ref === lead.ref }"
          @click="panel.show({ kind: 'lead', ref: lead.ref })"
        >
          <td>
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
          <td>
            {{ name(lead.from) }}<span class="quiet small port">{{ lead.from.split('.')[1] }}</span>
          </td>
          <td>
            {{ name(lead.to) }}<span class="quiet small port">{{ lead.to.split('.')[1] }}</span>
          </td>
          <td class="num">
            <EditCell
              figure
              :label="`Size of ${lead.ref}`"
              :value="lead.conductor?.size"
              unit="mm²"
              :save="store(lead, 'Size', ['conductor', 'size'])"
            />
          </td>
          <td class="num">
            <EditCell
              figure
              :label="`Length of ${lead.ref}`"
              :value="lead.length"
              unit="mm"
              :save="store(lead, 'Length', ['length'])"
            />
          </td>
          <td>
            <EditCell
              :label="`Run of ${lead.ref}`"
              :value="lead.route"
              :options="routes"
              :save="store(lead, 'Run', ['route'])"
            />
          </td>
          <td class="num">
            <EditCell
              figure
              :label="`Circuits bundled with ${lead.ref}`"
              :value="lead.bundled_with"
              :save="storeWhole(lead, 'Bundle', ['bundled_with'])"
            />
          </td>
          <td>
            <EditCell
              :label="`Fuse of ${lead.ref}`"
              :value="lead.protection"
              :options="fuses"
              :save="store(lead, 'Fuse', ['protection'])"
            />
          </td>
          <td v-if="!panel.open" class="small quiet ends">{{ contacts(lead, 0) }} · {{ contacts(lead, 1) }}</td>
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
.ends {
  max-width: 320px;
}
.port {
  margin-left: 6px;
  white-space: nowrap;
}
</style>
