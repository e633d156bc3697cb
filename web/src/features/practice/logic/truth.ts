// What was hidden, beside what was fished: depths and speeds over the day.
import { LineChart, CustomChart, ScatterChart } from 'echarts/charts'
import { GridComponent, LegendComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import type { CustomSeriesOption, EChartsOption } from 'echarts'
import type { Inks } from '@/shared/ui/useInks'
import { lengthFromM, speedFromMps, type UnitChoice } from '@/shared/units/units'
import type { TruthView } from '../store'

use([LineChart, CustomChart, ScatterChart, GridComponent, LegendComponent, CanvasRenderer])

const BEGIN_MIN = 6 * 60 + 30

export function clockOf(minute: number): string {
  const at = BEGIN_MIN + Math.round(minute)
  return `${Math.floor(at / 60)}:${String(at % 60).padStart(2, '0')}`
}

/** What every chart of a day shares: the hours below, and an axis of its own at the side. */
function frame(
  view: TruthView,
  inks: Inks,
  yAxis: { name: string; nameLocation?: 'start'; inverse?: boolean; scale?: boolean; min?: number },
): EChartsOption {
  return {
    animation: false,
    textStyle: { color: inks.ink, fontFamily: 'Archivo Variable, sans-serif' },
    legend: { top: 0, icon: 'rect', itemHeight: 3, textStyle: { color: inks.ink }, itemWidth: 30 },
    grid: { left: 46, right: 16, top: 34, bottom: 28 },
    xAxis: {
      type: 'value',
      min: 0,
      max: Math.max(view.day.minutes, 10),
      axisLabel: { color: inks.soft, formatter: (value: number) => clockOf(value) },
      splitLine: { show: false },
    },
    yAxis: { ...yAxis, type: 'value', axisLabel: { color: inks.soft }, splitLine: { lineStyle: { color: inks.line } } },
  }
}

/** Depths: where fish held, and every stretch that was fished, with a dot for each that had hits. */
export function depthOption(view: TruthView, units: UnitChoice, inks: Inks): EChartsOption {
  const { truth } = view
  const line = (name: string, depths: readonly number[], dashed: boolean) => ({
    name,
    type: 'line' as const,
    showSymbol: false,
    smooth: true,
    lineStyle: { color: inks.ink, width: 3, type: dashed ? ('dashed' as const) : ('solid' as const) },
    itemStyle: { color: inks.ink },
    data: truth.minutes.map((minute, i) => [minute, lengthFromM(depths[i]!, units)]),
  })
  const stretches: CustomSeriesOption = {
    name: 'fished (thin)',
    type: 'custom',
    itemStyle: { color: inks.soft },
    data: view.fished.map(([from, to, depth, hits]) => [from!, to!, lengthFromM(depth!, units), hits!]),
    encode: { x: [0, 1], y: 2 },
    renderItem: (_params, api) => {
      const [x1, y] = api.coord([api.value(0), api.value(2)]) as [number, number]
      const x2 = api.coord([api.value(1), api.value(2)])[0]!
      const hits = Number(api.value(3))
      return {
        type: 'group',
        children: [
          { type: 'line', shape: { x1, y1: y, x2, y2: y }, style: { stroke: inks.soft, lineWidth: 2 } },
          ...(hits
            ? [
                {
                  type: 'text' as const,
                  style: {
                    text: `${hits}`,
                    x: (x1 + x2) / 2,
                    y: y - 4,
                    align: 'center' as const,
                    verticalAlign: 'bottom' as const,
                    fill: inks.ink,
                  },
                },
              ]
            : []),
        ],
      }
    },
  }
  return {
    ...frame(view, inks, { inverse: true, min: 0, name: units.length, nameLocation: 'start' }),
    series: [line('fish that held (thick)', truth.deep_m, false), line('fish near the surface (dashed)', truth.shallow_m, true), stretches],
  }
}

/** Speeds: what they wanted, and what was set. */
export function speedOption(view: TruthView, units: UnitChoice, inks: Inks): EChartsOption {
  const speed = (mps: number): number => Math.round(speedFromMps(mps, units) * 100) / 100
  const last = view.speeds.at(-1)
  return {
    ...frame(view, inks, { scale: true, name: units.speed }),
    series: [
      {
        name: 'wanted (thick)',
        type: 'line',
        showSymbol: false,
        smooth: true,
        lineStyle: { color: inks.ink, width: 3 },
        itemStyle: { color: inks.ink },
        data: view.truth.minutes.map((minute, i) => [minute, speed(view.truth.speed_mps[i]!)]),
      },
      {
        name: 'set (thin)',
        type: 'line',
        step: 'end',
        showSymbol: false,
        lineStyle: { color: inks.soft, width: 2 },
        itemStyle: { color: inks.soft },
        data: [
          ...view.speeds.map(([minute, mps]) => [Math.max(minute!, 0), speed(mps!)]),
          ...(last ? [[view.day.minutes, speed(last[1]!)]] : []),
        ],
      },
    ],
  }
}

/** Hits a rod-hour, of somebody with so many rods out all day. */
export function perRodHour(hits: number, rodMinutes: number): number | null {
  return rodMinutes > 0 ? (60 * hits) / rodMinutes : null
}
