<script setup lang="ts">
import { computed } from 'vue'
import VChart from 'vue-echarts'
import { useChart } from '@/shared/useChart'

/** One or a few lines over a length, an angle, a time or a frequency. */
const props = defineProps<{
  lines: { name: string; points: number[][] }[]
  x?: string
  y?: string
  bare?: boolean
  label: string
}>()
const { look, renderer } = useChart()
const option = computed(() => ({
  animation: false,
  grid: { left: 8, right: 16, top: 22, bottom: 8, containLabel: true },
  textStyle: { fontFamily: 'inherit' },
  tooltip: { trigger: 'axis' },
  xAxis: {
    type: 'value',
    scale: true,
    name: props.x,
    nameLocation: 'middle',
    nameGap: 24,
    axisLine: { onZero: false, lineStyle: { color: look.value.rule } },
    splitLine: { show: false },
    axisLabel: { color: look.value.quiet },
  },
  yAxis: {
    type: 'value',
    scale: true,
    name: props.y,
    axisLine: { onZero: false },
    splitLine: { lineStyle: { color: look.value.rule } },
    axisLabel: { color: look.value.quiet },
  },
  series: props.lines.map((line, i) => ({
    type: 'line',
    name: line.name,
    data: line.points,
    showSymbol: props.bare !== true && line.points.length < 60,
    symbolSize: 7,
    lineStyle: { width: 2, type: i === 0 ? 'solid' : 'dashed', color: i === 0 ? look.value.live : look.value.ink },
    itemStyle: { color: i === 0 ? look.value.live : look.value.ink },
  })),
}))
</script>

<template>
  <v-chart class="plot" :option="option" :init-options="renderer" autoresize role="img" :aria-label="label" />
</template>

<style scoped>
.plot {
  width: 100%;
  max-width: 640px;
  height: 220px;
}
</style>
