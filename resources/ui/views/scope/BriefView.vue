<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Scope } from '@/api/client'
import { whole } from '@/shared/format'
import EditCell from '@/shared/EditCell.vue'
import FindingList from '@/shared/FindingList.vue'
import HeaderField from '@/shared/HeaderField.vue'
import { freeRef, refFrom } from '@/shared/refs'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import WorkingLines from '@/shared/WorkingLines.vue'
import DoNext from './DoNext.vue'
import AxisTable from './AxisTable.vue'

const { document: build } = useBuild()
const { set, edit } = useEdit()
const { data: catalogue } = useCatalogue()
const { data: scope } = useDerived<Scope>('scope', () => 'scope')
const { about } = useFindings()
const notices = useNotices()
const fresh = ref('')
const reason = ref('')
const held = computed(() => about('scope'))
const countries = computed(() =>
  (catalogue.value?.countries ?? []).map((country) => ({ value: country.name, title: country.name })),
)
const outlets = computed(
  () => catalogue.value?.countries.find((country) => country.name === build.value?.site?.country)?.outlets ?? [],
)
const wires = [
  { value: 'metric', title: 'mm²' },
  { value: 'imperial', title: 'AWG' },
]
const pieces = computed(() => build.value?.workpieces ?? [])
const sides = [
  ['length', 'Length', 'mm'],
  ['width', 'Width', 'mm'],
  ['height', 'Height', 'mm'],
  ['volume', 'Volume of one', 'cm³'],
] as const

/** What nearly every check asks for, and no other page would. */
const wanted = computed(() => {
  const { brief, site, build: plan } = build.value ?? {}

  return [
    pieces.value.length > 0,
    brief?.process,
    brief?.accuracy,
    site?.country ?? site?.mains_voltage,
    site?.mains_voltage,
    site?.outlet,
    site?.ambient,
    plan?.budget,
  ]
})
const said = computed(() => wanted.value.filter((one) => one !== undefined && one !== false && one !== null).length)

/** A country brings its voltage, frequency and usual outlet; the plate on the outlet may correct them. */
async function settle(name: string, was: unknown): Promise<void> {
  const country = catalogue.value?.countries.find((one) => one.name === name)
  const site = build.value?.site
  await edit(`Mains of ${name}`, [
    {
      section: 'site',
      ref: '',
      set: [
        { path: ['country'], was: was ?? null, to: name || null },
        ...(country === undefined
          ? []
          : [
              { path: ['mains_voltage'], was: site?.mains_voltage ?? null, to: country.voltage },
              { path: ['mains_frequency'], was: site?.mains_frequency ?? null, to: country.frequency },
              { path: ['outlet'], was: site?.outlet ?? null, to: country.outlets[0] },
            ]),
      ],
    },
  ])
}

async function add(): Promise<void> {
  reason.value = ''
  try {
    await edit(`Workpiece ${fresh.value}`, [
      {
        section: 'workpieces',
        create: {
          ref: freeRef(refFrom(fresh.value, 'piece'), (one) => pieces.value.some((piece) => piece.ref === one)),
          name: fresh.value,
        },
      },
    ])
    fresh.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

async function remove(ref: string, name: string): Promise<void> {
  try {
    await edit(`remove ${name}`, [{ section: 'workpieces', ref, delete: true }])
  } catch (error) {
    notices.problem(error)
  }
}

const save = (ref: string, name: string, path: string) => (text: string, was: unknown) =>
  set(
    `${path} of ${name}`,
    'workpieces',
    ref,
    [path],
    was,
    text === '' ? null : path === 'per_week' ? whole(text) : text,
  )
</script>

<template>
  <div class="view brief">
    <section class="asked">
      <div class="view-head">
        <h1>Brief</h1>
        <span class="quiet">what everything else is held against</span>
      </div>
      <DoNext />
      <h2>What it must make</h2>
      <table class="ledger pieces">
        <thead>
          <tr>
            <th>Workpiece</th>
            <th v-for="[key, title] in sides" :key="key" class="num">{{ title }}</th>
            <th>Material</th>
            <th class="num">A week</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="piece in pieces" :key="piece.ref">
            <td><EditCell label="Workpiece" :value="piece.name" :save="save(piece.ref, piece.name, 'name')" /></td>
            <td v-for="[key, title, unit] in sides" :key="key" class="num">
              <EditCell
                figure
                :label="`${title} of ${piece.name}`"
                :value="piece[key]"
                :unit="unit"
                :save="save(piece.ref, piece.name, key)"
              />
            </td>
            <td>
              <EditCell
                :label="`Material of ${piece.name}`"
                :value="piece.material"
                :save="save(piece.ref, piece.name, 'material')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`${piece.name} a week`"
                :value="piece.per_week"
                :save="save(piece.ref, piece.name, 'per_week')"
              />
            </td>
            <td class="num">
              <button
                type="button"
                class="plain quiet small"
                :aria-label="`remove ${piece.name}`"
                @click="remove(piece.ref, piece.name)"
              >
                remove
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <form class="fields" @submit.prevent="add()">
        <input v-model="fresh" class="field" aria-label="A further workpiece" placeholder="A further workpiece" /><v-btn
          type="submit"
          size="small"
          :disabled="fresh === ''"
          >Add</v-btn
        ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </form>
      <section aria-label="Needed first" class="needed">
        <h2>
          Needed first<span class="quiet small ml-3" role="status">{{ said }} of {{ wanted.length }} said</span>
        </h2>
        <dl class="facts">
          <HeaderField needed of="brief" :path="['process']" label="Process" :options="catalogue?.processes ?? []" />
          <HeaderField needed of="brief" :path="['accuracy']" label="Accuracy wanted" unit="mm" />
          <dt>Country</dt>
          <dd>
            <EditCell
              label="Country"
              :value="build?.site?.country"
              :options="countries"
              placeholder="not said"
              :save="settle"
            />
          </dd>
          <HeaderField needed of="site" :path="['mains_voltage']" label="Mains voltage" unit="V" />
          <HeaderField
            needed
            of="site"
            :path="['outlet']"
            :label="outlets.length > 1 ? `Outlet (${outlets.join(' or ')})` : 'Outlet'"
            unit="A"
          />
          <HeaderField needed of="site" :path="['ambient']" label="Hottest air" unit="°C" />
          <HeaderField needed of="build" :path="['budget']" :label="`Budget, ${build?.build.currency ?? ''}`" unit="" />
        </dl>
      </section>
      <p class="quiet small optional">The rest may stay empty; each of it makes some answer sharper.</p>
      <div class="columns">
        <div>
          <h2>How well and how much</h2>
          <div class="purpose">
            <EditCell
              long
              label="Purpose"
              :value="build?.build.purpose"
              placeholder="what for, in a sentence"
              :save="(text, was) => set('Purpose', 'build', '', ['purpose'], was, text || null)"
            />
          </div>
          <dl class="facts">
            <HeaderField
              of="build"
              :path="['stage']"
              label="How far it is"
              :options="['planned', 'bought', 'made', 'powered']"
            />
            <HeaderField
              of="brief"
              :path="['cut_direction']"
              label="Cutters fed"
              :options="['climb', 'conventional', 'either']"
            />
            <HeaderField
              of="brief"
              :path="['margin']"
              label="Free travel around a piece, each side"
              unit="mm"
              placeholder="10 mm"
            />
            <HeaderField
              of="brief"
              :path="['flow']"
              :label="build?.brief?.process === 'printing' ? 'Flow it melts' : 'Volume it removes'"
              unit="mm³/s"
            />
            <HeaderField of="brief" :path="['duty']" label="Share of its hours in which it works" unit="%" />
            <HeaderField of="brief" :path="['weekly']" label="Hours a week it may run" unit="h" />
            <HeaderField of="brief" :path="['spindle_power']" label="Spindle power in mind" unit="W" />
          </dl>
          <h2>Size</h2>
          <dl class="facts">
            <HeaderField
              of="brief"
              :path="['size', 'x']"
              label="Work area along x"
              unit="mm"
              :placeholder="scope?.work_area.x ?? undefined"
            />
            <HeaderField
              of="brief"
              :path="['size', 'y']"
              label="Work area along y"
              unit="mm"
              :placeholder="scope?.work_area.y ?? undefined"
            />
            <HeaderField
              of="brief"
              :path="['size', 'z']"
              label="Height of work"
              unit="mm"
              :placeholder="scope?.work_area.z ?? undefined"
            />
            <HeaderField of="brief" :path="['outline', 'length']" label="Outside, length" unit="mm" />
            <HeaderField of="brief" :path="['outline', 'width']" label="Outside, width" unit="mm" />
            <HeaderField of="brief" :path="['outline', 'height']" label="Outside, height" unit="mm" />
            <HeaderField of="brief" :path="['outline', 'mass']" label="Mass" unit="kg" />
            <HeaderField
              of="brief"
              :path="['outline', 'evidence']"
              label="What the outside rests on"
              :options="(catalogue?.evidence ?? []).map((one) => one.key)"
              placeholder="assumed"
            />
          </dl>
          <h2>Who builds it</h2>
          <dl class="facts">
            <HeaderField
              v-for="trade in catalogue?.trades"
              :key="trade"
              of="brief"
              :path="['experience', trade]"
              :label="trade === 'mains' ? 'Mains wiring' : trade[0]!.toUpperCase() + trade.slice(1)"
              :options="catalogue?.experience ?? []"
            />
            <HeaderField of="brief" :path="['helper']" label="Who does or checks the mains work" />
            <HeaderField of="brief" :path="['wish']" label="Tool or project" :options="['tool', 'project']" />
            <HeaderField of="build" :path="['weekly']" label="Hours a week to build" unit="h" />
            <HeaderField of="build" :path="['pace']" label="Your hours over the guide's" unit="%" />
          </dl>
        </div>
        <div>
          <h2>Where it stands</h2>
          <dl class="facts">
            <HeaderField of="site" :path="['mains_frequency']" label="Mains frequency" unit="Hz" />
            <dt>Wire is sold in</dt>
            <dd>
              <EditCell
                label="Wire is sold in"
                :value="build?.build.units ?? 'metric'"
                :options="wires"
                :save="(text, was) => set('Wire is sold in', 'build', '', ['units'], was, text)"
              />
            </dd>
            <HeaderField of="site" :path="['other_load']" label="What else runs on its circuit" unit="A" />
            <HeaderField of="site" :path="['residual_current_device']" label="Residual-current protection" flag />
            <HeaderField of="site" :path="['humidity']" label="Humidity" unit="%" />
            <HeaderField
              of="site"
              :path="['ventilation']"
              label="Ventilation"
              :options="catalogue?.ventilation ?? []"
            />
            <HeaderField of="site" :path="['noise']" label="Who hears it" :options="catalogue?.noise ?? []" />
            <HeaderField of="site" :path="['door', 'width']" label="Door, width" unit="mm" />
            <HeaderField of="site" :path="['door', 'height']" label="Door, height" unit="mm" />
            <HeaderField of="site" :path="['bench', 'length']" label="Bench, length" unit="mm" />
            <HeaderField of="site" :path="['bench', 'width']" label="Bench, width" unit="mm" />
            <HeaderField of="site" :path="['bench', 'load']" label="Bench carries" unit="kg" />
            <HeaderField of="site" :path="['room', 'length']" label="Room, length" unit="m" />
            <HeaderField of="site" :path="['room', 'width']" label="Room, width" unit="m" />
            <HeaderField of="site" :path="['room', 'height']" label="Room, height" unit="m" />
            <HeaderField of="site" :path="['service']" label="Kept free on each side" unit="mm" />
          </dl>
          <h2>At hand where it stands</h2>
          <dl class="facts">
            <HeaderField
              v-for="(label, key) in catalogue?.precautions"
              :key="key"
              of="site"
              :path="['ready', key]"
              :label="label"
              flag
            />
          </dl>
          <h2>Money and date</h2>
          <dl class="facts">
            <HeaderField of="build" :path="['contingency']" label="Contingency" unit="%" />
            <HeaderField
              of="brief"
              :path="['hour']"
              :label="`An hour of yours is worth, ${build?.build.currency ?? ''}`"
              unit=""
            />
            <HeaderField
              of="site"
              :path="['tariff']"
              :label="`A kilowatt-hour, ${build?.build.currency ?? ''}`"
              unit=""
            />
            <HeaderField of="brief" :path="['wanted_by']" label="Wanted by (YYYY-MM-DD)" />
          </dl>
        </div>
      </div>
      <AxisTable />
    </section>
    <section class="follows" aria-label="What follows">
      <h2>What follows</h2>
      <details v-for="figure in scope?.figures" :key="figure.key" class="figure-row">
        <summary>
          <strong>{{ figure.title }}</strong><span class="says">{{ figure.says }}</span
          ><span v-if="figure.missing.length" class="unproven small missing"
            >Not known yet: {{ figure.missing.slice(0, 3).join('; ')
            }}{{ figure.missing.length > 3 ? ` and ${figure.missing.length - 3} more` : '' }}.</span
          >
        </summary>
        <WorkingLines :steps="figure.working" />
      </details>
      <FindingList :findings="held" none="Nothing here can be judged before the brief says more." />
      <p class="quiet small mt-4">A planning aid. Local code and a licensed electrician decide on mains work.</p>
    </section>
  </div>
</template>

<style scoped>
.optional {
  margin: 14px 0 0;
}
.brief {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 390px;
  gap: 36px;
  align-items: start;
}
.asked {
  min-width: 0;
  overflow-x: auto;
}
.columns {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 36px;
}
h2 {
  margin: 20px 0 4px;
}
.follows {
  position: sticky;
  top: 16px;
  max-height: calc(100dvh - 128px);
  overflow: auto;
}
.follows h2 {
  margin-top: 6px;
}
.figure-row {
  border-bottom: 1px solid var(--rule);
  padding: 7px 0;
}
.figure-row summary {
  cursor: pointer;
  list-style: none;
}
.figure-row summary::before {
  content: '+';
  float: right;
  color: var(--quiet);
  font-family: var(--figures);
}
.figure-row[open] summary::before {
  content: '−';
}
.says,
.missing {
  display: block;
}
.says {
  font-size: 14px;
}
.facts {
  align-items: start;
}
.purpose {
  margin: 0 0 8px;
  font-size: 14px;
}
.facts :deep(dt) {
  padding: 2px 0;
}
.pieces td {
  padding-top: 0;
  padding-bottom: 0;
}
@media (max-width: 1100px) {
  .brief {
    grid-template-columns: minmax(0, 1fr);
  }
  .follows {
    position: static;
    max-height: none;
  }
}
@media (max-width: 700px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  .asked {
    overflow-x: auto;
  }
}
</style>
