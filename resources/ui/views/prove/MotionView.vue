<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import VChart from 'vue-echarts'
import { api, reasonOf, type AxisMotion, type EditResult, type PickedMotors } from '@/api/client'
import { uuid } from '@/shared/refs'
import { saveCsv, saveSvg } from '@/shared/download'
import FigureText from '@/shared/FigureText.vue'
import FirstAction from '@/shared/FirstAction.vue'
import FindingList from '@/shared/FindingList.vue'
import { useRouter } from 'vue-router'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useChart } from '@/shared/useChart'
import { useFindings } from '@/shared/useFindings'
import VerdictMark from '@/shared/VerdictMark.vue'
import AxisForm from './AxisForm.vue'
import CuttingData from './CuttingData.vue'
import TravelBar from './TravelBar.vue'
import HelpTerms from '@/shared/HelpTerms.vue'

/** Torque asked for against torque there is, over speed, axis by axis; and what holds each back. */
const { id, document: build } = useBuild()
const { data: axes, isError, error } = useDerived<AxisMotion[]>('motion', () => 'motion')
const { about } = useFindings()
const { absorb } = useEdit()
const router = useRouter()
const { look, renderer } = useChart()
const picked = ref('')
const motors = ref<PickedMotors | null>(null)
const busy = ref(false)
const reason = ref('')
const drawing = ref<HTMLElement | null>(null)
const axis = computed(() => axes.value?.find((one) => one.ref === picked.value) ?? axes.value?.[0])
const held = computed(() => build.value?.axes?.find((one) => one.ref === axis.value?.ref))
/** Its figures can be drawn; until then the form comes first. */
const known = computed(() => axis.value !== undefined && axis.value.curve.length > 0 && axis.value.phases.length > 0)
watch(
  () => [axis.value?.ref, build.value],
  () => (motors.value = null),
)
const said = computed(() =>
  about('axes').filter((finding) => finding.subject.kind === 'axis' && finding.subject.ref === axis.value?.ref),
)
/** Findings come worst first. */
const worstOf = (ref: string) =>
  about('axes').find((finding) => finding.subject.kind === 'axis' && finding.subject.ref === ref)?.verdict
const words: Record<string, string> = { accelerate: 'accelerates', run: 'runs', cut: 'cuts', hold: 'holds' }

const chart = computed(() => {
  const now = axis.value!
  const ask = now.phases.filter((phase) => phase.torque > 0)
  const top = Math.max(100, ...ask.map((phase) => phase.rpm)) * 1.25
  const points = now.curve.filter((point) => point.rpm <= top).map((point) => [point.rpm, point.torque])
  const beyond = now.curve.find((point) => point.rpm > top)
  if (beyond !== undefined) points.push([top, beyond.torque + ((points.at(-1)?.[1] ?? 0) - beyond.torque) * 0.4])

  return {
    animation: false,
    aria: { enabled: true },
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
    grid: { left: 60, right: 110, top: 18, bottom: 44 },
    tooltip: {
      trigger: 'item' as const,
      formatter: ({ data, seriesName }: { data: [number, number, string?]; seriesName: string }) =>
        `${data[2] ?? seriesName}: ${data[1].toFixed(3)} N m at ${data[0].toFixed(0)} rpm`,
    },
    xAxis: {
      type: 'value' as const,
      name: 'rpm of the motor',
      nameLocation: 'middle' as const,
      nameGap: 28,
      min: 0,
      max: Math.ceil(top / 100) * 100,
      axisLabel: { color: look.value.quiet },
      nameTextStyle: { color: look.value.quiet },
      splitLine: { lineStyle: { color: look.value.rule } },
    },
    yAxis: {
      type: 'value' as const,
      name: 'N m',
      min: 0,
      axisLabel: { color: look.value.quiet },
      nameTextStyle: { color: look.value.quiet },
      splitLine: { lineStyle: { color: look.value.rule } },
    },
    series: [
      {
        type: 'line' as const,
        name: now.estimated ? 'there is, an estimate' : 'there is',
        data: points,
        symbol: 'circle',
        symbolSize: 4,
        lineStyle: {
          color: look.value.live,
          width: 2.5,
          type: now.estimated ? ('dashed' as const) : ('solid' as const),
        },
        itemStyle: { color: look.value.live },
        endLabel: { show: true, formatter: 'there is', color: look.value.live },
      },
      {
        type: 'scatter' as const,
        name: 'asked for',
        symbol: 'diamond',
        symbolSize: 13,
        itemStyle: { color: look.value.ink },
        label: {
          show: true,
          position: 'right' as const,
          color: look.value.ink,
          formatter: ({ data }: { data: [number, number, string] }) => data[2],
        },
        data: ask.map((phase) => [phase.rpm, phase.torque, words[phase.phase] ?? phase.phase]),
      },
      {
        type: 'scatter' as const,
        name: `${now.wanted} times that is wanted`,
        symbol: 'emptyCircle',
        symbolSize: 11,
        itemStyle: { color: look.value.quiet },
        data: ask.map((phase) => [
          phase.rpm,
          phase.torque * now.wanted,
          `${now.wanted} times, wanted to ${phase.phase}`,
        ]),
      },
    ],
  }
})

async function pick(): Promise<void> {
  busy.value = true
  reason.value = ''
  try {
    motors.value = await api.get<PickedMotors>(`/api/builds/${id.value}/axes/${axis.value!.ref}/motors`)
  } catch (problem) {
    reason.value = reasonOf(problem)
  } finally {
    busy.value = false
  }
}
/** The motor becomes a candidate for the axis and is compared in place. */
async function compare(library: number): Promise<void> {
  const need = held.value?.drive?.motors?.[0]
  if (need === undefined) return
  try {
    absorb(
      await api.post<EditResult>(`/api/builds/${id.value}/needs/${need}/candidates`, {
        library,
        key: uuid(),
      }),
    )
    await router.push(`/builds/${id.value}/choose/compare/${need}`)
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}
const name = computed(() => `${build.value?.build.name ?? 'build'}-${axis.value?.ref ?? 'axis'}`)
const csv = () =>
  saveCsv(`${name.value}-motion.csv`, [
    ['phase', 'rpm', 'force N', 'torque N m', 'there is N m'],
    ...(axis.value?.phases ?? []).map((one) => [one.phase, one.rpm, one.force, one.torque, one.has]),
    [],
    ['rpm', 'torque N m'],
    ...(axis.value?.curve ?? []).map((one) => [one.rpm, one.torque]),
  ])
const svg = () => {
  const found = drawing.value?.querySelector('svg')
  if (found) saveSvg(`${name.value}-motion.svg`, found)
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Motion</h1>
      <span v-if="axes?.length" class="choices" role="group" aria-label="Axis"
        ><button
          v-for="one in axes"
          :key="one.ref"
          type="button"
          class="plain"
          :aria-pressed="axis?.ref === one.ref"
          @click="picked = one.ref"
        >
          <VerdictMark v-if="worstOf(one.ref)" :verdict="worstOf(one.ref)!" :size="11" /> {{ one.name }}
        </button></span
      >
      <span v-if="axis?.curve.length" class="push"
        ><v-btn @click="svg()">Save SVG</v-btn><v-btn @click="csv()">CSV</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="axes && axes.length === 0" class="empty">
      No axis is described yet. Name each direction of travel under
      <router-link class="link" :to="`/builds/${id}/scope/brief`">Brief</router-link>; here it gets its motors, its
      screw or belt, its mass and its speed.
      <FirstAction path="scope/brief">Name an axis</FirstAction>
    </p>
    <template v-else-if="axis && held">
      <div v-if="known" class="two">
        <div ref="drawing">
          <VChart
            class="chart"
            :option="chart"
            :init-options="renderer"
            autoresize
            role="img"
            :aria-label="`Torque there is over speed, and what ${axis.name} asks for; the table gives the figures.`"
          />
        </div>
        <table class="ledger" tabindex="0">
          <thead>
            <tr>
              <th>While it</th>
              <th class="num">Motor speed</th>
              <th class="num">Force</th>
              <th class="num"><HelpTerms text="Torque" /></th>
              <th class="num">Motor gives</th>
              <th class="num">Given, of what is needed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="phase in axis.phases" :key="phase.phase">
              <td>{{ words[phase.phase] ?? phase.phase }}</td>
              <td class="num"><FigureText :value="phase.rpm.toFixed(0)" unit="rpm" /></td>
              <td class="num"><FigureText :value="phase.force.toFixed(1)" unit="N" /></td>
              <td class="num"><FigureText :value="phase.torque.toFixed(3)" unit="N m" /></td>
              <td class="num"><FigureText :value="phase.has?.toFixed(3)" unit="N m" /></td>
              <td
                class="num figure"
                :class="{ fails: phase.has !== null && phase.torque > 0 && phase.has / phase.torque < axis.wanted }"
              >
                {{ phase.has === null || phase.torque <= 0 ? '–' : (phase.has / phase.torque).toFixed(2) }}
              </td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="6" class="quiet small">
                {{ axis.wanted }} times is wanted, {{ axis.loop }} loop.<template v-if="axis.estimated">
                  The curve is an estimate from the corner speed until its points are on the motor's sheet.</template
                >
              </td>
            </tr>
          </tfoot>
        </table>
      </div>
      <template v-else>
        <p class="aside">
          <template v-if="!axis.driven">No motor moves this axis yet: choose one here.</template
          ><template v-else>Not known yet: {{ axis.missing.join('; ') }}.</template>
        </p>
        <AxisForm :axis="held" />
      </template>
      <dl v-if="known" class="across">
        <div>
          <dt>Limited by</dt>
          <dd>
            {{ axis.caps ? axis.caps.by : '–' }} <FigureText v-if="axis.caps" :value="axis.caps.speed" unit="mm/s" />
          </dd>
        </div>
        <div>
          <dt>May accelerate</dt>
          <dd><FigureText :value="axis.max_acceleration?.toFixed(0)" unit="mm/s²" /></dd>
        </div>
        <div>
          <dt>Pushes when stopped</dt>
          <dd><FigureText :value="axis.stall_force?.toFixed(0)" unit="N" /></dd>
        </div>
        <div>
          <dt><HelpTerms text="Load at the shaft" /></dt>
          <dd><FigureText :value="axis.load_inertia" unit="kg cm²" /></dd>
        </div>
        <div>
          <dt>Rotors</dt>
          <dd><FigureText :value="axis.rotor_inertia" unit="kg cm²" /></dd>
        </div>
        <div>
          <dt>One turn moves</dt>
          <dd><FigureText :value="axis.travel_per_turn" unit="mm" /></dd>
        </div>
        <div>
          <dt>Steps for 1 mm</dt>
          <dd><FigureText :value="axis.steps_per_mm" /></dd>
        </div>
        <div>
          <dt><HelpTerms text="Step rate" /></dt>
          <dd><FigureText :value="axis.step_rate" unit="kHz" /></dd>
        </div>
      </dl>
      <svg
        v-if="axis.stack.length"
        class="bar"
        viewBox="0 0 1000 70"
        role="img"
        :aria-label="`Travel of ${axis.name} to scale; Stack-up gives the figures.`"
      >
        <TravelBar :axis="axis" :scale="980 / Math.max(axis.stack[0]!.length, axis.advertised ?? 0)" />
      </svg>
      <FindingList :findings="said" none="No check speaks of this axis yet." />
      <template v-if="known">
        <h2>What moves it, and what is asked of it</h2>
        <AxisForm :axis="held" />
      </template>
      <h2>Which motor would do?</h2>
      <p v-if="!motors">
        <v-btn size="small" color="primary" :disabled="busy || !axis.driven" @click="pick()">{{
          busy ? 'Trying …' : 'Try the motors of the library'
        }}</v-btn>
        <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </p>
      <p v-else-if="motors.missing.length" class="unproven">Not known yet: {{ motors.missing.join('; ') }}.</p>
      <table v-else class="ledger" tabindex="0">
        <thead>
          <tr>
            <th>Motor</th>
            <th>Verdict</th>
            <th class="num"><HelpTerms text="Torque, of what is needed" /></th>
            <th>Hardest while it</th>
            <th class="num">Set to</th>
            <th class="num">Torque falls above</th>
            <th class="num"><HelpTerms text="Inertia ratio" /></th>
            <th class="num">Length</th>
            <th class="num">Mass</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="motor in motors.motors.slice(0, 12)" :key="motor.ref">
            <td>{{ motor.name }}</td>
            <td :class="motor.does ? 'holds' : 'fails'" :title="motor.says ?? undefined">
              {{ motor.does ? 'yes' : 'no' }}
            </td>
            <td class="num figure">{{ motor.factor.toFixed(2) }} times</td>
            <td>{{ words[motor.phase] ?? motor.phase }}</td>
            <td class="num"><FigureText :value="motor.set" unit="A" /></td>
            <td class="num"><FigureText :value="motor.corner" unit="rpm" /></td>
            <td class="num figure">{{ motor.inertia }}</td>
            <td class="num"><FigureText :value="motor.length" unit="mm" /></td>
            <td class="num"><FigureText :value="motor.mass" unit="g" /></td>
            <td>
              <button
                type="button"
                class="plain link small"
                :aria-label="`Compare ${motor.name}`"
                @click="compare(motor.library)"
              >
                compare
              </button>
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <td colspan="10" class="quiet small">
              {{ motors.motors.length }} tried with this driver and supply. A longer motor needs longer screws, and may
              foul its neighbour: compare it under Compare.
            </td>
          </tr>
        </tfoot>
      </table>
    </template>
    <CuttingData v-if="build?.brief?.process === 'cutting'" />
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.chart {
  width: 100%;
  height: 270px;
}
.bar {
  width: 100%;
  max-width: 760px;
  display: block;
}
tfoot td.quiet {
  font-weight: 400;
}
h2 {
  margin: 20px 0 6px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
</style>
