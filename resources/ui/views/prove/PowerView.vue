<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import VChart from 'vue-echarts'
import { api, reasonOf, type PowerOutput, type PowerScenario } from '@/api/client'
import { usePhone } from '@/shared/usePhone'
import FirstAction from '@/shared/FirstAction.vue'
import EditCell from '@/shared/EditCell.vue'
import FigureText from '@/shared/FigureText.vue'
import FindingList from '@/shared/FindingList.vue'
import { money, percent } from '@/shared/format'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useChart } from '@/shared/useChart'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'
import ScenarioTable from './ScenarioTable.vue'

const { id, document: build } = useBuild()
const { set } = useEdit()
const { look, renderer } = useChart()
const panel = usePanel()
const { about } = useFindings()
/** Heat of cabinets and the air they need; places are described under Heat. */
const cabinets = computed(() => about('cabinets'))
const {
  data: power,
  isError,
  error,
} = useQuery({
  queryKey: computed(() => ['power', id.value]),
  queryFn: () => api.get<PowerScenario[]>(`/api/builds/${id.value}/power`),
})
const asked = ref<string | null>(null)
const scenario = computed(() => power.value?.find((one) => one.ref === asked.value) ?? power.value?.at(-1))
const outputs = computed(() =>
  (scenario.value?.outputs ?? []).filter((output) => output.load !== null || output.missing.length > 0),
)
const currency = computed(() => build.value?.build.currency ?? '')

const mobile = usePhone()
/** One bar an output: its loads as shares of what it may give, the limit as a line at 100 %. */
const chart = computed(() => {
  const rows = outputs.value.filter((output) => output.limit !== null && output.limit > 0)
  const top = Math.max(120, ...rows.map((row) => Math.ceil((row.share ?? 0) * 10) * 10 + 10))
  const most = Math.max(0, ...rows.map((row) => Math.min(6, row.loads.length)))
  const series = Array.from({ length: most + 1 }, (_, i) => ({
    type: 'bar' as const,
    stack: 'load',
    barWidth: 20,
    name: i === most ? 'others' : `load ${i + 1}`,
    itemStyle: { color: look.value.parts[i] ?? look.value.quiet, borderColor: look.value.rule, borderWidth: 0.5 },
    label: {
      show: true,
      position: 'inside' as const,
      color: i < 2 ? '#fff' : look.value.ink,
      fontSize: 11,
      formatter: ({ data }: { data: { value: number; role: string } }) =>
        ((mobile.value ? 240 : 900) * data.value) / top > data.role.length * 6 + 6 ? data.role : '',
    },
    data: rows.map((row) => {
      const load = i < most && i < 6 ? row.loads[i] : undefined
      const rest = i === most ? row.loads.slice(6).reduce((sum, one) => sum + one.amps, 0) : 0

      return {
        value: load !== undefined ? (100 * load.amps) / row.limit! : (100 * rest) / row.limit!,
        role: load?.role ?? (rest > 0 ? 'others' : ''),
        amps: load?.amps ?? rest,
      }
    }),
    ...(i === 0
      ? {
          markLine: {
            silent: true,
            symbol: 'none',
            label: { formatter: '{b}', position: 'start' as const, color: look.value.ink, fontSize: 11 },
            data: [
              { xAxis: 100, name: 'limit', lineStyle: { color: look.value.fails, type: 'solid' as const, width: 1.5 } },
              { xAxis: 80, name: '80 %', lineStyle: { color: look.value.tight, type: 'dashed' as const } },
            ],
          },
        }
      : {}),
  }))

  return {
    animation: false,
    aria: { enabled: true },
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
    grid: { left: mobile.value ? 110 : 210, right: mobile.value ? 16 : 40, top: 24, bottom: 28 },
    tooltip: {
      trigger: 'item' as const,
      formatter: ({ data }: { data: { role: string; amps: number; value: number } }) =>
        `${data.role}: ${data.amps.toFixed(2)} A, ${data.value.toFixed(0)} % of the limit`,
    },
    xAxis: {
      type: 'value' as const,
      min: 0,
      max: top,
      ...(mobile.value ? { interval: 50 } : {}),
      axisLabel: { formatter: '{value} %', color: look.value.quiet, showMaxLabel: top % 50 === 0 },
      splitLine: { lineStyle: { color: look.value.rule } },
    },
    yAxis: {
      type: 'category' as const,
      inverse: true,
      data: rows.map((row) => row.label),
      axisLabel: { color: look.value.ink, width: mobile.value ? 100 : 195, overflow: 'truncate' as const },
      axisLine: { lineStyle: { color: look.value.ink } },
      axisTick: { show: false },
    },
    series,
  }
})
const drawn = computed(() => outputs.value.filter((output) => output.limit !== null && output.limit > 0).length)

function working(output: PowerOutput): void {
  if (!output.mains) panel.show({ kind: 'working', key: `E05/${output.ref}` })
}
/** Planned and read differ by more than a tenth. */
const apart = ({ energy }: PowerScenario) =>
  energy.measured_watts !== null &&
  energy.watts !== null &&
  Math.abs(energy.measured_watts - energy.watts) > 0.1 * energy.watts
const setSite = (what: string, path: string) => (text: string, was: unknown) =>
  set(`${what} of the site`, 'site', '', [path], was, text === '' ? null : text)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Power</h1>
      <span class="choices" role="group" aria-label="Scenario"
        ><button
          v-for="one in power"
          :key="one.ref"
          type="button"
          class="plain"
          :aria-pressed="scenario?.ref === one.ref"
          @click="asked = one.ref"
        >
          {{ one.name }}
        </button></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="scenario">
      <p v-if="outputs.length === 0" class="empty">
        No supply feeds anything yet. Add a supply among the parts and a lead from it; each output then shows what it
        carries by scenario.
        <FirstAction path="choose/parts?add">Add a supply</FirstAction>
      </p>
      <template v-else>
        <VChart
          v-if="drawn > 0"
          class="chart"
          :option="chart"
          :init-options="renderer"
          autoresize
          :style="{ height: `${56 + drawn * 36}px` }"
          role="img"
          :aria-label="`Loads of each supply in ${scenario.name}, as shares of its limit; the table below gives the figures.`"
        />
        <table class="ledger">
          <thead>
            <tr>
              <th>Output</th>
              <th class="num wide-only">Voltage</th>
              <th class="num wide-only">Load</th>
              <th class="num">Can give</th>
              <th class="num wide-only">To spare</th>
              <th class="num">Used</th>
              <th class="wide-only">Feeds</th>
              <th>Not known</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="output in outputs" :key="output.ref" @click="working(output)">
              <td>
                <button v-if="!output.mains" type="button" class="plain" @click.stop="working(output)">
                  {{ output.label }}</button><span v-else
                  >{{ output.label }} <span class="quiet small">mains</span></span
                >
              </td>
              <td class="num wide-only"><FigureText :value="output.volts" unit="V" /></td>
              <td class="num wide-only"><FigureText :value="output.load?.toFixed(2)" unit="A" /></td>
              <td class="num"><FigureText :value="output.limit?.toFixed(2)" unit="A" /></td>
              <td class="num wide-only" :class="{ fails: (output.left ?? 0) < 0 }">
                <FigureText :value="output.left?.toFixed(2).replace('-', '−')" unit="A" />
              </td>
              <td class="num figure">{{ percent(output.share) }}</td>
              <td class="small feeds wide-only">
                {{
                  output.loads
                    .slice(0, 4)
                    .map((load) => `${load.role} ${load.amps.toFixed(2)} A`)
                    .join(', ')
                }}<span v-if="output.loads.length > 4" class="quiet"> and {{ output.loads.length - 4 }} more</span>
              </td>
              <td class="small unproven">
                {{ output.missing.slice(0, 2).join('; ')
                }}{{ output.missing.length > 2 ? ` and ${output.missing.length - 2} more` : '' }}
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <div class="two">
        <section>
          <h2>Energy and running cost</h2>
          <table class="ledger">
            <thead>
              <tr>
                <th>Scenario</th>
                <th class="num">From the wall</th>
                <th class="num">Measured</th>
                <th class="num">One run</th>
                <th class="num">Costs</th>
                <th class="num">Runs a year</th>
                <th class="num">Year</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in power" :key="one.ref">
                <td>
                  <button type="button" class="plain" @click="panel.show({ kind: 'working', key: `E25/${one.ref}` })">
                    {{ one.name }}
                  </button>
                </td>
                <td class="num" :title="one.energy.missing.join('; ')">
                  <FigureText :value="one.energy.known_watts" unit="W" /><span
                    v-if="one.energy.watts === null"
                    class="unproven small"
                  >
                    at least</span
                  >
                </td>
                <td
                  class="num"
                  :class="{ tight: apart(one) }"
                  :title="apart(one) ? 'More than a tenth apart: one of the values behind it is wrong.' : ''"
                >
                  <FigureText :value="one.energy.measured_watts" unit="W" />
                </td>
                <td class="num"><FigureText :value="one.energy.run_wh" unit="W h" /></td>
                <td class="num figure">{{ money(one.energy.run_cost, currency) }}</td>
                <td class="num figure">{{ one.energy.runs_per_year ?? '–' }}</td>
                <td class="num figure">{{ money(one.energy.year_cost, currency) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section>
          <h2>Where it stands</h2>
          <dl class="facts">
            <dt>Mains voltage</dt>
            <dd>
              <EditCell
                figure
                label="Mains voltage"
                :value="build?.site?.mains_voltage"
                unit="V"
                :save="setSite('Mains voltage', 'mains_voltage')"
              />
            </dd>
            <dt>Mains frequency</dt>
            <dd>
              <EditCell
                figure
                label="Mains frequency"
                :value="build?.site?.mains_frequency"
                unit="Hz"
                :save="setSite('Mains frequency', 'mains_frequency')"
              />
            </dd>
            <dt>Outlet rated</dt>
            <dd>
              <EditCell
                figure
                label="Outlet rated"
                :value="build?.site?.outlet"
                unit="A"
                :save="setSite('Outlet', 'outlet')"
              />
            </dd>
            <dt>Hottest air</dt>
            <dd>
              <EditCell
                figure
                label="Hottest air"
                :value="build?.site?.ambient"
                unit="°C"
                :save="setSite('Hottest air', 'ambient')"
              />
            </dd>
            <dt>Kilowatt-hour</dt>
            <dd>
              <EditCell
                figure
                label="Price of a kilowatt-hour"
                :value="build?.site?.tariff"
                :save="setSite('Tariff', 'tariff')"
              /><span class="unit">{{ currency }}</span>
            </dd>
          </dl>
        </section>
      </div>
      <FindingList v-if="cabinets.length" named :findings="cabinets" none="" />
      <ScenarioTable />
    </template>
  </div>
</template>

<style scoped>
.chart {
  width: 100%;
  margin-bottom: 4px;
}
.feeds {
  max-width: 320px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 40px;
  margin-top: 28px;
}
h2 {
  margin-bottom: 6px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
