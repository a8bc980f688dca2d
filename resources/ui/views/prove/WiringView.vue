<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { reasonOf, type Wiring } from '@/api/client'
import { usePhone } from '@/shared/usePhone'
import { saveSvg } from '@/shared/download'
import { written } from '@/shared/decimals'
import HelpWord from '@/shared/HelpWord.vue'
import { percent } from '@/shared/format'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import { useSchematic } from './useSchematic'
import WiringTree from './WiringTree.vue'

/**
 * The wiring drawn from the model, from the wall at the left to the loads at the right; a load is walked lead by lead.
 */
const { id, document: build, roleOf, needs, parts } = useBuild()
const doubled = ref('')
const sag = ref(false)
const pressed = ref('')
const asked = computed(() =>
  new URLSearchParams([
    ...(doubled.value ? [['doubled', doubled.value]] : []),
    ...(sag.value ? [['sag', '1']] : []),
    ...(pressed.value ? [['pressed', pressed.value]] : []),
  ]).toString(),
)
const {
  data: map,
  isError,
  error,
} = useDerived<Wiring>('wiring', () => (asked.value === '' ? 'wiring' : `wiring?${asked.value}`))
const stops = computed(() => (build.value?.needs ?? []).filter((need) => need.family === 'stop_button'))
const loads = computed(() => [
  ...new Map((map.value?.loads ?? []).map((one) => [one.port.split('.')[0]!, one.role])).entries(),
])
const { ofLead, findings, about } = useFindings()
const panel = usePanel()
const uses = ['mains', 'power', 'motor', 'signal', 'earth'] as const
const seen = ref<Record<string, boolean>>({ mains: true, power: true, motor: true, signal: false, earth: false })
const scenario = ref('')
const volts = ref('')
const walked = ref<string | null>(null)
const canvas = ref<SVGSVGElement | null>(null)
const mobile = usePhone()
watch(
  map,
  (held) => {
    if (held && !held.scenarios.some((one) => one.ref === scenario.value))
      scenario.value = held.scenarios.at(-1)?.ref ?? ''
  },
  { immediate: true },
)

const at = computed(() => map.value?.volts[scenario.value] as Record<string, number> | undefined)
const levelOf = (port: string) => (at.value?.[port] === undefined ? null : String(Math.round(at.value[port]!)))
const levels = computed(() =>
  [
    ...new Set((map.value?.leads ?? []).map((lead) => levelOf(lead.from)).filter((one): one is string => one !== null)),
  ].sort((a, b) => Number(b) - Number(a)),
)
const leads = computed(() => new Map((map.value?.leads ?? []).map((lead) => [lead.ref, lead])))
const shown = computed(
  () =>
    new Set(
      [...(map.value?.leads ?? []), ...(map.value?.seats ?? []).map((seat) => ({ ...seat, use: 'power' as const }))]
        .filter((lead) => seen.value[lead.use] && (volts.value === '' || levelOf(lead.from) === volts.value))
        .map((lead) => lead.ref),
    ),
)
const seats = computed(() => new Map((map.value?.seats ?? []).map((seat) => [seat.ref, seat])))
function open(ref: string): void {
  const seat = seats.value.get(ref)
  panel.show(seat === undefined ? { kind: 'lead', ref } : { kind: 'part', ref: seat.to.split('.')[0]! })
}
const { drawing, busy } = useSchematic(map, shown)

/** From the wall: the way to a load goes on through the supply that feeds it. */
function wayTo(port: string, deep = 0): string[] {
  const load = map.value?.loads.find((one) => one.port === port)
  if (load === undefined || deep > 8) return []
  const first = leads.value.get(load.way[0] ?? '')
  const before =
    first === undefined
      ? undefined
      : map.value?.loads.find((one) => one.port.split('.')[0] === first.from.split('.')[0] && one.port !== port)

  return [...(before === undefined ? [] : wayTo(before.port, deep + 1)), ...load.way]
}
const walk = computed(() => {
  const contacts = new Map(about('contacts').map((finding) => [finding.subject.ref, finding]))

  return (walked.value === null ? [] : wayTo(walked.value)).map((ref) => {
    const lead = leads.value.get(ref)!
    const amps = lead.amps[scenario.value] as number | undefined
    const arrives = at.value?.[lead.to]

    return {
      lead,
      amps,
      arrives,
      watts: amps === undefined || arrives === undefined ? undefined : amps * arrives,
      contact: contacts.get(ref),
      worst: ofLead.value.get(ref)?.[0],
    }
  })
})
/** The worst that is said of a part itself, not of what hangs on it. */
const worstOf = computed(
  () =>
    new Map(
      [...findings.value]
        .reverse()
        .filter((finding) => finding.subject.needs.length === 1)
        .map((finding) => [finding.subject.needs[0]!, finding.verdict]),
    ),
)
const onWay = computed(() => new Set(walk.value.map((step) => step.lead.ref)))
const load = computed(() => map.value?.loads.find((one) => one.port === walked.value))

/** Width tells how full a lead is, colour what its check says of that. */
const loadClass = (load: string | null) => (load === null ? 'unknown' : load === 'holds' ? 'easy' : load)
const widthOf = (fill: number | null, use: string) =>
  use === 'signal' ? 1 : fill === null ? 1.5 : 1.5 + Math.min(fill, 1.5) * 3.2
const path = (points: { x: number; y: number }[]) =>
  points.map((point, i) => `${i ? 'L' : 'M'}${point.x} ${point.y}`).join('')
/** A long name on two lines, broken between words. */
function lines(text: string, most: number): string[] {
  if (text.length <= most) return [text]
  const at = text.lastIndexOf(' ', most)

  return at < 1 ? [cut(text, most)] : [text.slice(0, at), cut(text.slice(at + 1), most)]
}
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

function pick(need: string): void {
  const port = map.value?.loads.find((one) => one.port.startsWith(`${need}.`))?.port
  if (port === undefined) panel.show({ kind: 'part', ref: need })
  else walked.value = walked.value === port ? null : port
}

// Zoom about the middle of the view, drag to move, fit to see it all.
const zoom = ref(1)
const pan = ref({ x: 0, y: 0 })
const box = computed(() => {
  const [width, height] = [drawing.value.width / zoom.value, drawing.value.height / zoom.value]

  return `${pan.value.x + (drawing.value.width - width) / 2} ${pan.value.y + (drawing.value.height - height) / 2} ${Math.max(width, 1)} ${Math.max(height, 1)}`
})
const scale = (by: number) => (zoom.value = Math.min(8, Math.max(0.5, zoom.value * by)))
/** Begun so large that every word can be read; what does not go on the page then is a drag or “Show all” away. */
let begun = false
watch(drawing, async ({ width, height }) => {
  await nextTick()
  const held = canvas.value
  if (begun || held === null || width === 0) return
  begun = true
  const scaled = Math.min(held.clientWidth / width, held.clientHeight / height)
  if (scaled < 1) {
    zoom.value = Math.min(8, 1 / scaled)
    pan.value = { x: (width / zoom.value - width) / 2, y: (height / zoom.value - height) / 2 }
  }
})
/** A box that is reached by the tab key comes into the middle, where it stood off the page. */
function reach(at: { x: number; y: number; width: number; height: number }): void {
  const [left, top, width, height] = box.value.split(' ').map(Number) as [number, number, number, number]
  const inside = at.x >= left && at.y >= top && at.x + at.width <= left + width && at.y + at.height <= top + height
  if (!inside) {
    pan.value = {
      x: at.x + at.width / 2 - drawing.value.width / 2,
      y: at.y + at.height / 2 - drawing.value.height / 2,
    }
  }
}
function fit(): void {
  begun = true
  zoom.value = 1
  pan.value = { x: 0, y: 0 }
}
let held: { x: number; y: number } | null = null
function drag(event: PointerEvent): void {
  if (held === null || canvas.value === null) return
  const per = drawing.value.width / zoom.value / canvas.value.clientWidth
  pan.value = { x: pan.value.x - (event.clientX - held.x) * per, y: pan.value.y - (event.clientY - held.y) * per }
  held = { x: event.clientX, y: event.clientY }
}

const save = () =>
  saveSvg(
    `${build.value?.build.name ?? 'wiring'}-wiring.svg`,
    canvas.value!,
    `0 0 ${drawing.value.width} ${drawing.value.height}`,
  )
const printed = () => window.print()
</script>

<template>
  <div class="wiring">
    <div class="view-head">
      <h1>Wiring</h1>
      <select v-model="scenario" class="field" aria-label="Scenario">
        <option v-for="one in map?.scenarios" :key="one.ref" :value="one.ref">{{ one.name }}</option>
      </select>
      <select v-model="volts" class="field" aria-label="Voltage">
        <option value="">every voltage</option>
        <option v-for="level in levels" :key="level" :value="level">{{ level }} V</option>
      </select>
      <select v-model="doubled" class="field noprint" aria-label="What if a load doubles">
        <option value="">no load doubled</option>
        <option v-for="[need, role] in loads" :key="need" :value="need">twice {{ role }}</option>
      </select>
      <select v-if="stops.length" v-model="pressed" class="field noprint" aria-label="What if a stop is pressed">
        <option value="">no stop pressed</option>
        <option v-for="stop in stops" :key="stop.ref" :value="stop.ref">{{ stop.role }} pressed</option>
      </select>
      <label class="small noprint"><input v-model="sag" type="checkbox" /> supplies sag</label>
      <span class="choices"
        ><button
          v-for="use in uses"
          :key="use"
          type="button"
          class="plain"
          :aria-pressed="seen[use]"
          @click="seen = { ...seen, [use]: !seen[use] }"
        >
          {{ use }}
        </button></span
      >
      <span v-if="!mobile" class="push noprint"
        ><v-btn aria-label="Zoom out" @click="scale(1 / 1.3)">−</v-btn
        ><v-btn aria-label="Zoom in" @click="scale(1.3)">+</v-btn><v-btn @click="fit()">Show all</v-btn
        ><v-btn @click="save()">Save SVG</v-btn><v-btn :href="`/api/builds/${id}/wiring/${scenario}.cir`">Netlist</v-btn
        ><v-btn @click="printed()">Print</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="map && map.leads.length === 0" class="empty">
      No lead yet. Plan the list first, then cut wire: add leads under Leads, and they are drawn here.
      <FirstAction path="prove/leads?propose">Propose leads</FirstAction>
    </p>
    <template v-else>
      <p v-for="why in map?.unsolved" :key="why" class="danger small" role="alert">Not solved: {{ why }}.</p>
      <div v-if="asked !== '' && map" class="aside small worse" role="status">
        If that happens: <template v-if="map.worse.length === 0">nothing gets a worse verdict.</template>
        <ul v-else>
          <li v-for="one in map.worse.slice(0, 6)" :key="one.key">
            <VerdictMark :verdict="one.to" :size="12" /> {{ one.label }}: {{ one.headline }}
          </li>
          <li v-if="map.worse.length > 6" class="quiet">and {{ map.worse.length - 6 }} more</li>
        </ul>
      </div>
      <p v-if="busy && drawing.boxes.length === 0" class="quiet" role="status">Laying out the wiring …</p>
      <WiringTree
        v-if="mobile && map"
        :map="map"
        :shown="shown"
        :scenario="scenario"
        :worst="worstOf"
        @open="(ref) => (leads.has(ref) || seats.has(ref) ? open(ref) : pick(ref))"
      />
      <svg
        v-else
        ref="canvas"
        class="canvas"
        :viewBox="box"
        role="group"
        aria-label="Wiring from the wall at the left to the loads at the right; the table of leads gives the same in words."
        :class="{ busy }"
        @wheel.prevent="scale($event.deltaY < 0 ? 1.12 : 1 / 1.12)"
        @pointerdown="held = { x: $event.clientX, y: $event.clientY }"
        @pointermove="drag"
        @pointerup="held = null"
        @pointerleave="held = null"
      >
        <g
          v-for="run in drawing.runs"
          :key="run.ref"
          class="run"
          :class="[
            loadClass(leads.get(run.ref)?.load ?? null),
            leads.get(run.ref)?.use,
            {
              off: walked !== null && !onWay.has(run.ref),
              way: onWay.has(run.ref),
              seat: seats.has(run.ref),
            },
          ]"
          tabindex="0"
          role="button"
          @click="open(run.ref)"
          @keydown.enter="open(run.ref)"
        >
          <path class="hit" :d="path(run.points)" />
          <path
            class="line"
            :d="path(run.points)"
            :stroke-width="widthOf(leads.get(run.ref)?.fill ?? null, leads.get(run.ref)?.use ?? '')"
            :stroke-dasharray="
              seats.has(run.ref) ||
              leads.get(run.ref)?.proven ||
              !['power', 'mains'].includes(leads.get(run.ref)?.use ?? '')
                ? undefined
                : '6 4'
            "
          />
          <text :x="run.label.x" :y="run.label.y" text-anchor="middle">
            {{ seats.has(run.ref) ? 'slot' : run.ref }}
            <template v-if="(seats.get(run.ref) ?? leads.get(run.ref))?.amps[scenario] !== undefined">
              {{ written(`  ${((seats.get(run.ref) ?? leads.get(run.ref))!.amps[scenario] as number).toFixed(1)} A`) }}
            </template>
          </text>
        </g>
        <g
          v-for="one in drawing.boxes"
          :key="one.need"
          class="box"
          :class="[worstOf.get(one.need), { picked: walked?.startsWith(`${one.need}.`) }]"
          tabindex="0"
          role="button"
          @focus="reach(one)"
          @click="pick(one.need)"
          @keydown.enter="pick(one.need)"
        >
          <rect :x="one.x" :y="one.y" :width="one.width" :height="one.height" rx="2" />
          <title>{{ roleOf(one.need) }}</title>
          <text
            v-for="(line, i) in lines(roleOf(one.need), 25)"
            :key="i"
            class="role"
            :x="one.x + 10"
            :y="one.y + one.height / 2 - 3 + i * 14"
          >
            {{ line }}
          </text>
          <text v-if="roleOf(one.need).length <= 25" class="part" :x="one.x + 10" :y="one.y + one.height / 2 + 12">
            {{ cut(parts.get(needs.get(one.need)?.choice ?? '')?.name ?? 'not chosen', 29) }}
          </text>
        </g>
      </svg>
      <p v-if="!mobile" class="key small quiet">
        <span class="sample easy" /> up to 80 % of what the lead may carry <span class="sample tight" /> to 100 %
        <span class="sample danger" /> above <span class="sample unknown" /> not known; broken where unproven. Press a
        box to walk the way to it.
      </p>
      <section v-if="load" class="walk" aria-label="The way to a load">
        <h2>
          From the wall to {{ load.role
          }}<button type="button" class="plain link small ml-4" @click="walked = null">close</button>
        </h2>
        <table class="ledger">
          <thead>
            <tr>
              <th>Lead</th>
              <th>From</th>
              <th>To</th>
              <th class="num">Current</th>
              <th class="num">Arrives</th>
              <th class="num">Power</th>
              <th class="num">Used</th>
              <th>Worst contact</th>
              <th>Worst finding</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="step in walk" :key="step.lead.ref" @click="panel.show({ kind: 'lead', ref: step.lead.ref })">
              <td class="figure">
                <button type="button" class="plain">{{ step.lead.ref }}</button>
              </td>
              <td>{{ roleOf(step.lead.from.split('.')[0]!) }}</td>
              <td>{{ roleOf(step.lead.to.split('.')[0]!) }}</td>
              <td class="num figure">{{ step.amps === undefined ? '–' : written(`${step.amps.toFixed(2)} A`) }}</td>
              <td class="num figure">
                {{ step.arrives === undefined ? '–' : written(`${step.arrives.toFixed(2)} V`) }}
              </td>
              <td class="num figure">{{ step.watts === undefined ? '–' : `${step.watts.toFixed(0)} W` }}</td>
              <td class="num figure">{{ percent(step.lead.fill) }}</td>
              <td>
                <template v-if="step.contact"
                  ><VerdictMark :verdict="step.contact.verdict" :size="12" />
                  <span class="figure">{{
                    step.contact.margin === null ? '' : percent(1 - step.contact.margin)
                  }}</span></template
                >
              </td>
              <td class="small">
                <template v-if="step.worst"
                  ><VerdictMark :verdict="step.worst.verdict" :size="12" />
                  <HelpWord :check="step.worst.check">{{ step.worst.check }}</HelpWord></template
                >
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
@media (max-width: 700px) {
  .wiring.wiring {
    padding: 12px 12px 0;
  }
}
.wiring {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 16px 24px 8px;
  min-height: 0;
}
.view-head {
  align-items: center;
}
.canvas {
  flex: 1;
  min-height: 240px;
  width: 100%;
  touch-action: none;
  cursor: grab;
}
.canvas.busy {
  opacity: 0.5;
}
.run {
  cursor: pointer;
}
.line {
  fill: none;
  stroke: var(--live);
  stroke-linejoin: round;
}
.hit {
  fill: none;
  stroke: transparent;
  stroke-width: 10;
}
.run text {
  font: 10px var(--figures);
  fill: var(--quiet);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.run.tight .line {
  stroke: rgb(var(--v-theme-tight));
}
.run.danger .line {
  stroke: rgb(var(--v-theme-danger));
}
.run.unknown .line,
.run.signal .line,
.run.motor.unknown .line {
  stroke: var(--quiet);
}
.run.earth .line {
  stroke: rgb(var(--v-theme-holds));
}
.run.seat .line {
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1;
  opacity: 0.55;
}
.run.off {
  opacity: 0.18;
}
.run.way text {
  fill: var(--ink);
  font-weight: 600;
}
.box {
  cursor: pointer;
  outline: none;
}
.box rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1;
}
.box.danger rect {
  stroke: rgb(var(--v-theme-danger));
  stroke-width: 2;
}
.box.fails rect {
  stroke: rgb(var(--v-theme-fails));
  stroke-width: 2;
}
.box.picked rect,
.box:focus-visible rect {
  stroke: var(--live);
  stroke-width: 3;
}
.role {
  font: 600 11px var(--text);
  fill: var(--ink);
}
.part {
  font: 10px var(--text);
  fill: var(--quiet);
}
.key {
  margin: 4px 0;
}
.worse {
  max-height: 22%;
  overflow: auto;
}
.worse ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.sample {
  display: inline-block;
  width: 26px;
  height: 0;
  border-top: 3px solid var(--live);
  vertical-align: middle;
  margin: 0 4px 0 12px;
}
.sample.tight {
  border-color: rgb(var(--v-theme-tight));
  border-width: 5px;
}
.sample.danger {
  border-color: rgb(var(--v-theme-danger));
  border-width: 6px;
}
.sample.unknown {
  border-top: 2px dashed var(--quiet);
}
.walk {
  max-height: 38%;
  overflow: auto;
}
.walk h2 {
  margin: 6px 0 2px;
}
@media print {
  .noprint,
  .key {
    display: none;
  }
  .wiring {
    height: auto;
  }
  .canvas {
    height: 170mm;
  }
}
</style>

<style>
@media print {
  @page {
    size: A4 landscape;
    margin: 10mm;
  }
  .frame > .top,
  .frame > .second {
    display: none !important;
  }
}
</style>
