// The charts of a season: what stands where, in the page's own ink.
import { CustomChart, LineChart, BarChart, ScatterChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import type { CustomSeriesOption, EChartsOption } from 'echarts'
import type { Inks } from '@/shared/ui/useInks'
import { lengthFromM, temperatureFromC, type UnitChoice } from '@/shared/units/units'
import type { SeasonDay, Trend } from '../api'
import { barName } from './words'

use([CustomChart, LineChart, BarChart, ScatterChart, GridComponent, TooltipComponent, CanvasRenderer])

const DAY_MS = 86_400_000
/** So far beyond the intervals of what fished enough the axis goes; longer ones run out of the picture. */
const ROOM = 1.6
const text = (inks: Inks) => ({ color: inks.ink, fontFamily: 'Archivo Variable, sans-serif', fontSize: 13 })

/** A dot with its interval for each bar, from the top down; hollow where it fished too little to tell. */
export function trendOption(trend: Trend, units: UnitChoice, inks: Inks): EChartsOption {
  const rows = [...trend.bars].reverse()
  const sure = rows.filter((bar) => !bar.is_thin)
  const most = ROOM * Math.max(...(sure.length ? sure : rows).map((bar) => bar.rate_high), ...rows.map((bar) => bar.rate / ROOM))
  const dots: CustomSeriesOption = {
    type: 'custom',
    clip: true,
    data: rows.map((bar, i) => [bar.rate, i, bar.rate_low, bar.rate_high, bar.is_thin ? 1 : 0]),
    encode: { x: [0, 2, 3], y: 1 },
    renderItem: (_params, api) => {
      const at = (index: number): number[] => api.coord([api.value(index), api.value(1)])
      const [x, y] = at(0) as [number, number]
      const thin = api.value(4) === 1
      const low = at(2)[0]!
      const high = at(3)[0]!
      return {
        type: 'group',
        children: [
          {
            type: 'line',
            shape: { x1: low, y1: y, x2: high, y2: y },
            style: { stroke: thin ? inks.soft : inks.ink, lineWidth: thin ? 1 : 2 },
          },
          {
            type: 'circle',
            shape: { cx: x, cy: y, r: 6 },
            style: { fill: thin ? inks.paper : inks.ink, stroke: thin ? inks.soft : inks.ink, lineWidth: 2 },
          },
        ],
      }
    },
  }
  return {
    animation: false,
    textStyle: text(inks),
    grid: { left: 8, right: 24, top: 8, bottom: 34, containLabel: true },
    xAxis: {
      type: 'value',
      min: 0,
      max: Math.ceil(most * 10) / 10,
      name: 'hits a rod-hour',
      nameLocation: 'middle',
      nameGap: 22,
      nameTextStyle: { color: inks.soft },
      axisLabel: { color: inks.soft },
      splitLine: { lineStyle: { color: inks.line } },
    },
    yAxis: {
      type: 'category',
      data: rows.map((bar) => barName(trend.axis, bar, units)),
      axisLabel: { color: inks.ink },
      axisLine: { lineStyle: { color: inks.line } },
      axisTick: { show: false },
    },
    series: [dots],
  }
}

/** The days: surface temperature with what was landed above, how deep they bit below. */
export function daysOption(days: readonly SeasonDay[], units: UnitChoice, inks: Inks): EChartsOption {
  // Both pictures run from the same day to the same day.
  const at = days.map((day) => Date.parse(day.day))
  const time = (index: number, show: boolean) => ({
    type: 'time' as const,
    min: Math.min(...at) - DAY_MS,
    max: Math.max(...at) + DAY_MS,
    gridIndex: index,
    axisLabel: { show, color: inks.soft, hideOverlap: true },
    axisLine: { lineStyle: { color: inks.line } },
    splitLine: { show: false },
  })
  const value = (index: number, name: string, right = false) => ({
    type: 'value' as const,
    gridIndex: index,
    name,
    position: right ? ('right' as const) : ('left' as const),
    scale: !right,
    nameTextStyle: { color: inks.soft, align: right ? ('right' as const) : ('left' as const) },
    axisLabel: { color: inks.soft },
    splitLine: { show: !right, lineStyle: { color: inks.line } },
    minInterval: right ? 1 : undefined,
  })
  const bar = { type: 'bar' as const, barMaxWidth: 14, barMinWidth: 3, itemStyle: { color: inks.line } }
  const warm = days.filter((day) => day.warm_last_degc !== null)
  return {
    animation: false,
    textStyle: text(inks),
    tooltip: { trigger: 'axis', confine: true },
    grid: [
      { left: 52, right: 44, top: 30, height: 150 },
      { left: 52, right: 44, top: 224, height: 110 },
    ],
    xAxis: [time(0, false), time(1, true)],
    yAxis: [
      value(0, `surface ${units.temperature}`),
      { ...value(0, 'landed', true), min: 0 },
      { ...value(1, `bit at, ${units.length}`), inverse: true, min: 0, scale: false, nameLocation: 'start' as const },
    ],
    series: [
      { name: 'landed', ...bar, xAxisIndex: 0, yAxisIndex: 1, data: days.map((day) => [day.day, day.landed]) },
      {
        name: `surface ${units.temperature}`,
        type: 'line',
        xAxisIndex: 0,
        yAxisIndex: 0,
        symbol: 'circle',
        symbolSize: 7,
        // From day to day nobody read anything.
        lineStyle: { color: inks.soft, width: 1, type: 'dashed' },
        itemStyle: { color: inks.ink },
        data: warm.map((day) => [day.day, Math.round(temperatureFromC(day.warm_last_degc!, units) * 10) / 10]),
      },
      {
        name: 'bit at',
        type: 'scatter',
        xAxisIndex: 1,
        yAxisIndex: 2,
        symbol: 'diamond',
        symbolSize: 11,
        itemStyle: { color: inks.ink },
        data: days.filter((day) => day.fished_m !== null).map((day) => [day.day, Math.round(lengthFromM(day.fished_m!, units))]),
      },
      // Bars widen the hours they stand on: the lower picture has as many, of no height, or a day stands twice.
      { ...bar, silent: true, xAxisIndex: 1, yAxisIndex: 2, data: days.map((day) => [day.day, 0]) },
    ],
  }
}
