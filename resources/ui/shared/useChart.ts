import { BarChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useLook } from './useLook'

use([BarChart, LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

/** What every chart is drawn with. */
export function useChart() {
  return { ...useLook(), renderer: { renderer: 'svg' as const } }
}
