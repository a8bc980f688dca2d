<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type MeasureRow } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { useBuild, useCatalogue, useDerived } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'
import { useReading } from '@/shared/useReading'
import VerdictMark from '@/shared/VerdictMark.vue'
import HelpWord from '@/shared/HelpWord.vue'

/** Values ranked by what their uncertainty could do to verdicts, with the instrument and where to write the reading. */
const { id, needs, parts, document: build } = useBuild()
const { data: catalogue } = useCatalogue()
const { data: rows, isError, error, isPending } = useDerived<MeasureRow[]>('measure-first', () => 'measure-first')
const panel = usePanel()
const all = ref(false)
const shown = computed(() => (all.value ? (rows.value ?? []) : (rows.value ?? []).slice(0, 15)))
const label = (key: string | null) => catalogue.value?.evidence.find((one) => one.key === key)?.label ?? ''
const flag = (row: MeasureRow) => fieldOf(row)?.kind === 'flag'
const fieldOf = (row: MeasureRow) =>
  catalogue.value?.families
    .find((family) => family.key === parts.value.get(row.part ?? '')?.family)
    ?.fields.find((field) => field.key === row.key)
const options = (row: MeasureRow) =>
  (flag(row) ? ['yes', 'no'] : fieldOf(row)?.kind === 'choice' ? fieldOf(row)!.choices : undefined)?.map((one) => ({
    value: one,
    title: one,
  }))

/** A value by its line of the sheet, and under it the places in the build that it is a value of. */
function named(row: MeasureRow): { what: string; of: string } {
  const line = row.port === null ? fieldOf(row)?.label : row.label.split(' of ')[0]
  const roles = [...needs.value.values()].filter((one) => one.choice === row.part).map((one) => one.role)
  if (line === undefined || roles.length === 0)
    return { what: row.label.replace(/ as built \(.*\)$| \([^)]*\)$/, ''), of: '' }
  const more = roles.length > 2 ? ` and ${roles.length - 2} more` : ''

  return { what: line, of: `${roles.slice(0, 2).join(', ')}${more}${row.port === null ? '' : ` · ${row.port}`}` }
}

const reading = useReading()
const write = (row: MeasureRow) =>
  reading({
    part: row.part ?? '',
    key: row.key ?? '',
    port: row.port,
    label: row.label,
    instrument: row.instrument,
    flag: flag(row),
  })

function open(row: MeasureRow): void {
  const [kind, ref = ''] = row.where.split('/')
  const need = [...needs.value.values()].find((one) => one.choice === row.part)
  if (kind === 'leads') panel.show({ kind: 'lead', ref })
  else if (kind === 'mates') panel.show({ kind: 'joint', ref })
  else if (need !== undefined) panel.show({ kind: 'part', ref: need.ref })
}
const elsewhere = (row: MeasureRow) =>
  /^axes\/[^/]+\/(drive|homing)/.test(row.where)
    ? `/builds/${id.value}/prove/motion`
    : /^(brief|site|workpieces|axes)/.test(row.where)
      ? `/builds/${id.value}/scope/brief`
      : /^(zones|settings)/.test(row.where)
        ? `/builds/${id.value}/prove/${row.where.startsWith('zones') ? 'heat' : 'settings'}`
        : row.where.startsWith('places/')
          ? `/builds/${id.value}/prove/picture?place=${row.where.split('/')[1]}`
          : null
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Measure first</h1>
      <span v-if="rows" class="quiet">{{ rows.length }} values could turn a verdict, or keep one from being given</span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="isPending" class="quiet" role="status">Trying each value at both ends of its uncertainty …</p>
    <p v-else-if="rows?.length === 0" class="empty">
      {{
        (build?.parts ?? []).length === 0
          ? 'There is nothing to measure before there are parts.'
          : 'No value within its uncertainty turns a verdict.'
      }}
    </p>
    <table v-else class="ledger stack">
      <thead>
        <tr>
          <th class="num" />
          <th>Value</th>
          <th>Value now</th>
          <th class="wide-only">Could be</th>
          <th>Would change</th>
          <th class="wide-only">Measure with</th>
          <th class="num">Reading</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in shown" :key="row.where">
          <td class="num figure quiet">{{ i + 1 }}</td>
          <td class="what">
            <button v-if="!elsewhere(row)" type="button" class="plain" :title="row.label" @click="open(row)">
              {{ named(row).what }}</button><router-link v-else :to="elsewhere(row)!" class="link">{{
              named(row).what
            }}</router-link>
            <span v-if="named(row).of" class="quiet small block">{{ named(row).of }}</span>
          </td>
          <td class="stands">
            <template v-if="row.value"
              ><span class="figure">{{ row.value }}</span
              ><span
                class="small block"
                :class="row.evidence === 'listing' || row.evidence === 'assumed' ? 'unproven' : 'quiet'"
                >{{ label(row.evidence) }}</span
              ></template
            ><span v-else class="unproven">not known</span>
          </td>
          <td class="wide-only figure small">
            <template v-if="row.low">{{ row.low }} to {{ row.high }}</template>
          </td>
          <td class="turns under">
            <button
              v-for="flip in row.flips.slice(0, 3)"
              :key="flip.key + flip.to"
              type="button"
              class="plain flip"
              :title="`${flip.title}, ${flip.subject}`"
              @click="panel.show({ kind: 'working', key: flip.key })"
            >
              <VerdictMark :verdict="flip.from" :size="12" /><template v-if="flip.to">
                → <VerdictMark :verdict="flip.to" :size="12" /> {{ flip.to }}</template
              ><template v-else> no verdict</template
              ><span class="quiet ml-2"
                ><HelpWord inside :check="flip.key.split('/')[0]">{{ flip.key.split('/')[0] }}</HelpWord>
                {{ flip.subject }}<template v-if="flip.with"> with {{ flip.with }} more</template></span
              >
            </button>
            <span v-if="row.flips.length > 3" class="quiet small">and {{ row.flips.length - 3 }} more</span>
          </td>
          <td class="small with under">
            {{ row.instrument
            }}<span class="quiet block"
              >{{ row.method }}<template v-if="row.within !== '0 %'"> Good to {{ row.within }}.</template></span
            >
          </td>
          <td class="num">
            <EditCell
              v-if="row.part && row.key"
              figure
              :label="`Reading of ${row.label}`"
              :value="null"
              :unit="row.unit"
              :options="options(row)"
              placeholder="enter it"
              :save="write(row)"
              ><span class="link">enter it</span></EditCell
            ><router-link v-else-if="elsewhere(row)" class="link" :to="elsewhere(row)!">enter it</router-link
            ><button v-else type="button" class="plain link" @click="open(row)">enter it</button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="(rows?.length ?? 0) > 15" class="small">
      <button type="button" class="plain link" @click="all = !all">
        {{ all ? 'Only the first 15' : `All ${rows!.length}` }}
      </button>
    </p>
    <p class="quiet small">
      How far a value may be off where it has no tolerance: datasheet 3 %, kit manual 10 %, listing 20 %, assumed 30 %;
      temperatures 3 to 15 K. Common practice, no source. Mains is measured by somebody practised only.
    </p>
  </div>
</template>

<style scoped>
td {
  vertical-align: top;
  padding-top: 6px;
  padding-bottom: 5px;
}
.what {
  max-width: 240px;
}
.block {
  display: block;
}
.turns {
  max-width: 330px;
}
.flip {
  display: block;
  font-size: 13.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 100%;
}
.flip:hover {
  color: var(--live);
}
.with {
  max-width: 230px;
}
.link {
  color: var(--live);
  text-decoration: underline;
  text-underline-offset: 2px;
}
</style>
