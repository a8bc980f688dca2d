<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type AxisMotion } from '@/api/client'
import { saveCsv, saveSvg } from '@/shared/download'
import FigureText from '@/shared/FigureText.vue'
import { millimetres } from '@/shared/format'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import ClearanceTable from './ClearanceTable.vue'
import TravelBar from './TravelBar.vue'

/**
 * Travel to scale: what there is, what takes some of it, what is left, what is advertised, and whether a piece fits.
 */
const { id, document: build } = useBuild()
const { data: axes, isError, error } = useDerived<AxisMotion[]>('motion', () => 'motion')
const { findings } = useFindings()
const panel = usePanel()
const drawing = ref<SVGSVGElement | null>(null)
const size = ref({ x: 0, y: 0, z: 0 })
const chosen = ref('')
const shown = computed(() => (axes.value ?? []).filter((axis) => axis.stack.length > 0))
const longest = computed(() =>
  Math.max(1, ...shown.value.map((axis) => axis.stack[0]!.length), ...shown.value.map((axis) => axis.advertised ?? 0)),
)
const left = 130
const width = 1000
const row = 84
const scale = computed(() => (width - left - 20) / longest.value)
const pieces = computed(() => build.value?.workpieces ?? [])
function take(ref: string): void {
  chosen.value = ref
  const piece = pieces.value.find((one) => one.ref === ref)
  const [long, wide] = [millimetres(piece?.length) ?? 0, millimetres(piece?.width) ?? 0].sort((a, b) => b - a)
  const alongX =
    (shown.value.find((axis) => axis.along === 'x')?.usable ?? 0) >=
    (shown.value.find((axis) => axis.along === 'y')?.usable ?? 0)
  size.value = { x: (alongX ? long : wide) ?? 0, y: (alongX ? wide : long) ?? 0, z: millimetres(piece?.height) ?? 0 }
}
const lines = computed(() =>
  shown.value.map((axis) => {
    let at = 0
    const takers = axis.stack.slice(1).map((piece) => {
      const start = at
      at += piece.length
      return { ...piece, start }
    })
    const whole = axis.stack[0]!
    const usable = Math.max(0, axis.usable ?? whole.length - at)
    const wanted = size.value[axis.along as 'x' | 'y' | 'z']

    return { axis, whole, takers, start: at, usable, wanted, fits: wanted <= usable }
  }),
)
const verdictOf = (ref: string) => findings.value.find((finding) => finding.key === `M01/${ref}`)
const csv = () =>
  saveCsv(`${build.value?.build.name ?? 'build'}-travel.csv`, [
    ['axis', 'what', 'mm'],
    ...lines.value.flatMap((line) => [
      [line.axis.name, line.whole.what, line.whole.length],
      ...line.takers.map((one) => [line.axis.name, one.what, -one.length]),
      [line.axis.name, 'left', line.usable],
      [line.axis.name, 'advertised', line.axis.advertised],
    ]),
  ])
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Stack-up</h1>
      <span class="quiet">to scale: what takes travel and working height, and what is left</span
      ><span v-if="shown.length" class="push"
        ><v-btn @click="saveSvg(`${build?.build.name}-travel.svg`, drawing!)">Save SVG</v-btn
        ><v-btn @click="csv()">CSV</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="axes && shown.length === 0" class="empty">
      No direction with a rail or a length is described yet. Describe travel under
      <router-link class="link" :to="`/builds/${id}/scope/brief`">Brief</router-link>: each rail, its blocks, and all
      that takes some of it.
      <FirstAction path="scope/brief">Name an axis</FirstAction>
    </p>
    <template v-else-if="shown.length">
      <div class="fields">
        <span>A piece of</span>
        <select
          class="field"
          aria-label="Workpiece"
          :value="chosen"
          @change="take(($event.target as HTMLSelectElement).value)"
        >
          <option value="">no piece</option>
          <option v-for="piece in pieces" :key="piece.ref" :value="piece.ref">{{ piece.name }}</option>
        </select>
        <label v-for="along in ['x', 'y', 'z'] as const" :key="along" class="small"
          >{{ along }}
          <input
            v-model.number="size[along]"
            type="range"
            min="0"
            :max="Math.ceil(longest)"
            :aria-label="`Size of the piece along ${along}, mm`"
          />
          <input
            v-model.number="size[along]"
            class="field mm"
            type="number"
            min="0"
            :aria-label="`Piece along ${along}`"
          /><span class="unit">mm</span></label
        >
      </div>
      <svg
        ref="drawing"
        class="stack"
        :viewBox="`0 0 ${width} ${lines.length * row + 26}`"
        role="img"
        aria-label="Travel of each direction to scale; the table gives the figures."
      >
        <g v-for="(line, i) in lines" :key="line.axis.ref" :transform="`translate(0 ${i * row + 8})`">
          <text class="name" x="0" y="26">{{ line.axis.name }}</text>
          <text class="quiet-text" x="0" y="42">{{ line.whole.what }}</text>
          <TravelBar :axis="line.axis" :scale="scale" :left="left" :wanted="line.wanted" />
        </g>
        <g :transform="`translate(${left} ${lines.length * row + 12})`">
          <line class="sold" x1="0" :x2="100 * scale" y1="0" y2="0" />
          <text class="quiet-text" :x="100 * scale + 6" y="4">100 mm</text>
        </g>
      </svg>
      <table class="ledger">
        <thead>
          <tr>
            <th>Verdict</th>
            <th>Direction</th>
            <th class="num">Full length</th>
            <th>Reduced by</th>
            <th class="num">Left</th>
            <th class="num">Advertised</th>
            <th class="num">This piece</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="line in lines"
            :key="line.axis.ref"
            @click="panel.show({ kind: 'working', key: `M01/${line.axis.ref}` })"
          >
            <td>
              <button
                v-if="verdictOf(line.axis.ref)"
                type="button"
                class="plain"
                @click.stop="panel.show({ kind: 'working', key: `M01/${line.axis.ref}` })"
              >
                <VerdictMark :verdict="verdictOf(line.axis.ref)!.verdict" word />
              </button>
            </td>
            <td>{{ line.axis.name }}</td>
            <td class="num"><FigureText :value="line.whole.length" unit="mm" /></td>
            <td class="small">{{ line.takers.map((one) => `${one.what} ${one.length} mm`).join(', ') }}</td>
            <td class="num"><FigureText :value="line.usable.toFixed(1)" unit="mm" /></td>
            <td class="num"><FigureText :value="line.axis.advertised" unit="mm" /></td>
            <td class="num"><FigureText :value="line.wanted || null" unit="mm" /></td>
            <td :class="line.fits ? 'holds' : 'fails'">
              {{
                line.wanted > 0 ? (line.fits ? 'fits' : `${(line.wanted - line.usable).toFixed(0)} mm too long`) : ''
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">
        Takers are edited under Brief. A name or a sheet size is a table, not a travel: measure a part against what is
        left before a long job.
      </p>
    </template>
    <ClearanceTable v-if="axes?.length" />
  </div>
</template>

<style scoped>
.stack {
  width: 100%;
  max-width: 1180px;
  display: block;
  margin: 6px 0 12px;
}
.name {
  font: 600 13px var(--text);
  fill: var(--ink);
}
.quiet-text {
  font: 11px var(--text);
  fill: var(--quiet);
}
input[type='range'] {
  accent-color: var(--live);
}
.sold {
  stroke: var(--quiet);
  stroke-width: 2;
}
.mm {
  width: 76px;
}
input[type='range'] {
  width: 130px;
  vertical-align: middle;
}
@media (max-width: 700px) {
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
</style>
