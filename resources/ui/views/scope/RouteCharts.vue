<script setup lang="ts">
import { computed } from 'vue'
import VChart from 'vue-echarts'
import type { Routes } from '@/api/client'
import { money } from '@/shared/format'
import { useChart } from '@/shared/useChart'
import { amountOf, costParts } from './useRoutes'

/** What each route costs in its parts, and what moves the gap between the two cheapest. */
const props = defineProps<{ sums: Routes }>()
const { look, renderer } = useChart()
const base = computed(() => ({
  animation: false,
  aria: { enabled: true },
  textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
}))
const axis = computed(() => ({
  type: 'value' as const,
  axisLabel: {
    color: look.value.quiet,
    fontSize: 11,
    formatter: (value: number) => money(String(value), props.sums.currency, false),
  },
  splitLine: { lineStyle: { color: look.value.rule } },
}))

const cost = computed(() => ({
  ...base.value,
  grid: { left: 8, right: 28, top: 20, bottom: 8, containLabel: true },
  tooltip: {
    trigger: 'item' as const,
    formatter: ({ seriesName, value }: { seriesName: string; value: number }) =>
      `${seriesName}: ${money(value.toFixed(2), props.sums.currency)}`,
  },
  xAxis: axis.value,
  yAxis: {
    type: 'category' as const,
    inverse: true,
    data: props.sums.routes.map((route) => route.name),
    axisLabel: { color: look.value.ink, width: 150, overflow: 'break' as const },
    axisTick: { show: false },
    axisLine: { lineStyle: { color: look.value.ink } },
  },
  series: [
    ...costParts.map((part, i) => ({
      type: 'bar' as const,
      stack: 'sum',
      name: part.title,
      barWidth: 22,
      data: props.sums.routes.map((route) => Number(amountOf(route, part.key))),
      itemStyle: { color: look.value.parts[i], borderColor: look.value.rule, borderWidth: 0.5 },
      ...(i === 0 && props.sums.budget
        ? {
            markLine: {
              silent: true,
              symbol: 'none',
              label: { formatter: 'budget', position: 'start' as const, color: look.value.ink, fontSize: 11 },
              lineStyle: { color: look.value.fails, type: 'solid' as const, width: 1.5 },
              data: [{ xAxis: Number(props.sums.budget) }],
            },
          }
        : {}),
    })),
    {
      type: 'bar' as const,
      stack: 'sum',
      name: 'Your hours',
      barWidth: 22,
      data: props.sums.routes.map((route) => Number(route.hours_value ?? 0)),
      itemStyle: {
        color: 'transparent',
        borderColor: look.value.sheen,
        borderWidth: 1.5,
        borderType: 'dashed' as const,
      },
    },
  ],
}))

/** Each bar runs from the gap at one end of an assumption to the gap at the other; left of nought the answer turns. */
const tornado = computed(() => {
  const movers = props.sums.movers.slice(0, 8)

  return {
    ...base.value,
    grid: { left: 8, right: 28, top: 20, bottom: 8, containLabel: true },
    tooltip: {
      trigger: 'item' as const,
      formatter: ({ dataIndex }: { dataIndex: number }) => {
        const m = movers[dataIndex]!
        return `${m.what}: ${m.low_says} ${money(m.low, props.sums.currency)}, ${m.high_says} ${money(m.high, props.sums.currency)}`
      },
    },
    xAxis: axis.value,
    yAxis: {
      type: 'category' as const,
      inverse: true,
      data: movers.map((mover) => mover.what),
      axisLabel: { color: look.value.ink },
      axisTick: { show: false },
      axisLine: { show: false },
    },
    series: [
      {
        type: 'bar' as const,
        stack: 'range',
        silent: true,
        barWidth: 14,
        data: movers.map((m) => Math.min(Number(m.low), Number(m.high))),
        itemStyle: { color: 'transparent' },
      },
      {
        type: 'bar' as const,
        stack: 'range',
        barWidth: 14,
        data: movers.map((m) => Math.abs(Number(m.high) - Number(m.low))),
        itemStyle: { color: look.value.live },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { formatter: 'as planned', position: 'start' as const, color: look.value.quiet, fontSize: 11 },
          lineStyle: { color: look.value.ink, type: 'dashed' as const },
          data: [{ xAxis: Number(props.sums.level?.gap ?? 0) }],
        },
      },
    ],
  }
})
</script>

<template>
  <div class="charts">
    <figure>
      <figcaption>At the door, with your hours dashed</figcaption>
      <VChart
        class="chart"
        :option="cost"
        :init-options="renderer"
        autoresize
        role="img"
        aria-label="Cost of each route in its parts; the table gives the figures."
      />
    </figure>
    <figure v-if="props.sums.movers.length">
      <figcaption>What moves the gap between the two cheapest</figcaption>
      <VChart
        class="chart"
        :option="tornado"
        :init-options="renderer"
        autoresize
        role="img"
        aria-label="How far each assumption moves the gap; the list under the table gives the figures."
      />
    </figure>
  </div>
</template>

<style scoped>
.charts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
figure {
  margin: 0;
  min-width: 0;
}
figcaption {
  font-size: 13px;
  color: var(--quiet);
}
.chart {
  height: 190px;
  width: 100%;
}
@media (max-width: 900px) {
  .charts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
