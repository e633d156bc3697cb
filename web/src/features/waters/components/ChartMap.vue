<script setup lang="ts">
// A water's chart, from its own data alone: an even tint, contours, what stands on it, and legs to troll.
import 'leaflet/dist/leaflet.css'
import L from 'leaflet'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { lengthFromM } from '@/shared/units/units'
import { AREAS, type ChartMap, type Feature, type Leg } from '../api'

const props = defineProps<{ chart: ChartMap; legs?: readonly Leg[]; leg?: number | null; draft?: Feature | null }>()
const emit = defineEmits<{ place: [latitude: number, longitude: number]; leg: [index: number] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
let map: L.Map | null = null
let ground: L.LayerGroup | null = null
let over: L.LayerGroup | null = null

const token = (name: string): string => getComputedStyle(frame.value!).getPropertyValue(name).trim()
/** Red, green and blue of a colour, however it is written: a canvas turns each into #rrggbb. */
function parts(colour: string): number[] {
  const pen = document.createElement('canvas').getContext('2d')!
  pen.fillStyle = colour
  return [1, 3, 5].map((at) => parseInt((pen.fillStyle as string).slice(at, at + 2), 16))
}

/** The depths as one tint of one hue, light where it is shallow; land is left out. */
function tint(): HTMLCanvasElement {
  const { rows, deepest_m: deepest } = props.chart
  const canvas = document.createElement('canvas')
  canvas.width = rows[0]!.length
  canvas.height = rows.length
  canvas.className = 'tint'
  const target = canvas.getContext('2d')!
  const picture = target.createImageData(canvas.width, canvas.height)
  const [light, dark] = [parts(token('--water')), parts(token('--deep'))]
  rows.forEach((row, r) =>
    row.forEach((depth, c) => {
      if (depth === null) return
      const share = Math.sqrt(Math.min(Math.max(depth / deepest, 0), 1))
      const at = 4 * ((rows.length - 1 - r) * canvas.width + c)
      picture.data.set([...light.map((channel, i) => Math.round(channel + share * (dark[i]! - channel))), 255], at)
    }),
  )
  target.putImageData(picture, 0, 0)
  return canvas
}

/** A word on the chart; its text is set as text, never as markup. */
function label(place: L.LatLngExpression, text: string, kind: string): L.Marker {
  const node = document.createElement('span')
  node.textContent = text
  return L.marker(place, {
    icon: L.divIcon({ className: `chart-word ${kind}`, html: node, iconSize: [0, 0] }),
    interactive: false,
    keyboard: false,
  })
}

function drawGround(): void {
  if (!map || !ground) return
  ground.clearLayers()
  const { bounds, contours } = props.chart
  if (!bounds.length) return
  const corners = L.latLngBounds(bounds as L.LatLngTuple[])
  ground.addLayer(L.svgOverlay(tint() as unknown as SVGElement, corners))
  for (const line of props.chart.shore)
    ground.addLayer(L.polyline(line.places as L.LatLngTuple[], { color: token('--ink'), weight: 1.5, interactive: false }))
  const named = new Set<number>()
  const longest = [...contours].sort((a, b) => b.places.length - a.places.length)
  for (const line of longest) {
    ground.addLayer(L.polyline(line.places as L.LatLngTuple[], { color: token('--ink-2'), weight: 1, opacity: 0.8, interactive: false }))
    if (named.has(line.depth_m)) continue
    named.add(line.depth_m)
    const middle = line.places[Math.floor(line.places.length * 0.3)] as L.LatLngTuple
    ground.addLayer(label(middle, String(Math.round(lengthFromM(line.depth_m, display.units))), 'depth'))
  }
}

function drawFeature(feature: Feature, kind = ''): void {
  const places = feature.corners.map((corner) => [corner.latitude_deg, corner.longitude_deg] as L.LatLngTuple)
  const at = places[0]
  if (!at) return
  const closed = { color: token('--ink'), weight: 3, dashArray: '3 6', fillColor: token('--ink'), fillOpacity: 0.12, interactive: false }
  if (feature.kind === 'shore') over!.addLayer(L.polygon(places, { color: token('--ink'), weight: 2, fill: false, interactive: false }))
  if (feature.kind === 'closed_area') over!.addLayer(L.polygon(places, closed))
  if (feature.kind === 'closed_ring') over!.addLayer(L.circle(at, { ...closed, radius: feature.radius_m ?? 0 }))
  if (feature.kind === 'hazard' && feature.radius_m)
    over!.addLayer(L.circle(at, { ...closed, weight: 2, dashArray: '', radius: feature.radius_m }))
  if (feature.kind !== 'closed_ring' && !AREAS.includes(feature.kind)) {
    over!.addLayer(
      L.circleMarker(at, { radius: 4, color: token('--ink'), weight: 2, fillColor: token('--frost'), fillOpacity: 1, interactive: false }),
    )
  }
  const name = { hazard: `keep off: ${feature.name}`, closed_ring: `closed: ${feature.name}`, closed_area: `closed: ${feature.name}` }
  over!.addLayer(label(at, name[feature.kind as 'hazard'] ?? feature.name, `${feature.kind} ${kind}`))
}

function drawOver(): void {
  if (!map || !over) return
  over.clearLayers()
  for (const feature of props.chart.features) drawFeature(feature)
  if (props.draft) drawFeature(props.draft, 'draft')
  props.legs?.forEach((leg, i) => {
    const places = leg.places.map((place) => [place.latitude_deg, place.longitude_deg] as L.LatLngTuple)
    const on = i === props.leg
    const line = L.polyline(places, { color: token('--ink'), weight: on ? 6 : 3, opacity: on ? 1 : 0.55 })
    line.on('click', (event) => {
      L.DomEvent.stopPropagation(event)
      emit('leg', i)
    })
    over!.addLayer(line)
    over!.addLayer(label(places[0]!, String(i + 1), on ? 'leg on' : 'leg'))
  })
}

function fit(): void {
  if (map && props.chart.bounds.length) map.fitBounds(L.latLngBounds(props.chart.bounds as L.LatLngTuple[]), { padding: [8, 8] })
}

onMounted(() => {
  map = L.map(frame.value!, { attributionControl: false, zoomSnap: 0.25, fadeAnimation: false, zoomAnimation: false })
  ground = L.layerGroup().addTo(map)
  over = L.layerGroup().addTo(map)
  L.control.scale({ metric: display.units.length === 'm', imperial: display.units.length === 'ft' }).addTo(map)
  map.setView([0, 0], 2)
  map.on('click', (event) => emit('place', event.latlng.lat, event.latlng.lng))
  drawGround()
  drawOver()
  fit()
})
onBeforeUnmount(() => map?.remove())
watch(
  () => props.chart,
  (now, before) => {
    drawGround()
    drawOver()
    if (JSON.stringify(now.bounds) !== JSON.stringify(before.bounds)) fit()
  },
)
watch(
  () => [display.theme, display.units] as const,
  () =>
    requestAnimationFrame(() => {
      drawGround()
      drawOver()
    }),
)
watch(() => [props.legs, props.leg, props.draft], drawOver)
</script>

<template>
  <div ref="frame" class="chart" role="application" aria-label="Chart of the water" data-test="chart" :data-legs="legs?.length ?? 0" />
</template>

<style scoped>
.chart {
  --deep: rgb(92, 124, 142);
  min-height: 260px;
  background: var(--frost-2);
  font-family: inherit;
  z-index: 0;
}
.v-theme--beforeDawn .chart {
  --deep: rgb(66, 56, 48);
}
</style>

<style>
.chart .tint {
  image-rendering: auto;
}
.chart .chart-word {
  width: auto;
  height: auto;
  white-space: nowrap;
  font-size: 12px;
  font-weight: 680;
  color: var(--ink);
}
.chart .chart-word span {
  display: inline-block;
  transform: translate(8px, -50%);
  padding: 0 4px;
  background: var(--frost);
}
.chart .chart-word.depth span {
  transform: translate(-50%, -50%);
  padding: 0 2px;
  font-size: 11px;
  font-weight: 600;
  color: var(--ink-2);
}
.chart .chart-word.leg span {
  transform: translate(-50%, -50%);
  min-width: 22px;
  text-align: center;
  font-size: 14px;
  border: 2px solid var(--ink);
}
.chart .chart-word.leg.on span {
  background: var(--ink);
  color: var(--frost);
}
.chart .chart-word.draft span {
  outline: 2px solid var(--now);
}
.chart .leaflet-bar a,
.chart .leaflet-control-scale-line {
  background: var(--frost);
  color: var(--ink);
  border-color: var(--line);
}
.chart .leaflet-bar a {
  width: 44px;
  height: 44px;
  line-height: 42px;
}
</style>
