// Where the boat was, drawn to scale over the depths that the trip carried along.
import type { TripDocument } from '@/features/trip/api'

export interface TrackFile {
  features: {
    geometry: { type: string; coordinates: number[] | number[][] }
    properties: { kind: string; at?: string; times?: string[]; text?: string }
  }[]
}
export interface Spot {
  atS: number
  kind: string
  text: string
  x: number
  y: number
}
export interface Cell {
  x: number
  y: number
  size: number
  share: number
}
export interface Track {
  /** Metres to the east and to the south of the corner of what is drawn. */
  way: { atS: number; x: number; y: number }[]
  spots: Spot[]
  cells: Cell[]
  width: number
  height: number
  /** Where a place of the map is drawn. */
  at(place: { latitude_deg: number; longitude_deg: number }): { x: number; y: number }
}

const M_PER_DEG = 111_320
const MARGIN_M = 120

/** The track in metres with the depths round it; null where no place was noted. */
export function trackOf(file: TrackFile, chart: TripDocument['chart'] | undefined): Track | null {
  const line = file.features.find((one) => one.properties.kind === 'track')
  const points = file.features.filter((one) => one.geometry.type === 'Point')
  const way = (line?.geometry.coordinates as number[][] | undefined) ?? []
  const all = [...way, ...points.map((one) => one.geometry.coordinates as number[])]
  if (all.length < 2) return null
  const west = Math.min(...all.map(([lon]) => lon!))
  const north = Math.max(...all.map(([, lat]) => lat!))
  const perLon = M_PER_DEG * Math.cos((north * Math.PI) / 180)
  const east = (lon: number): number => (lon - west) * perLon + MARGIN_M
  const south = (lat: number): number => (north - lat) * M_PER_DEG + MARGIN_M
  const width = Math.max(...all.map(([lon]) => east(lon!))) + MARGIN_M
  const height = Math.max(...all.map(([, lat]) => south(lat!))) + MARGIN_M
  return {
    way: way.map(([lon, lat], i) => ({ atS: Date.parse(line!.properties.times![i]!) / 1000, x: east(lon!), y: south(lat!) })),
    spots: points.map((one) => {
      const [lon, lat] = one.geometry.coordinates as number[]
      const { kind, text, at } = one.properties
      return { atS: Date.parse(at!) / 1000, kind, text: text ?? '', x: east(lon!), y: south(lat!) }
    }),
    cells: chart ? cellsOf(chart, east, south, width, height) : [],
    width,
    height,
    at: ({ latitude_deg, longitude_deg }) => ({ x: east(longitude_deg), y: south(latitude_deg) }),
  }
}

function cellsOf(
  chart: NonNullable<TripDocument['chart']>,
  east: (lon: number) => number,
  south: (lat: number) => number,
  width: number,
  height: number,
): Cell[] {
  const rows = chart.rows as (number | null)[][]
  const deepest = Math.max(...rows.flat().map((depth) => depth ?? 0), 1)
  const size = chart.cell_m
  const x0 = east(chart.south_west.longitude_deg)
  const y0 = south(chart.south_west.latitude_deg)
  return rows.flatMap((row, i) =>
    row.flatMap((depth, j) => {
      const x = x0 + j * size
      const y = y0 - (i + 1) * size
      if (depth === null || x + size < 0 || y + size < 0 || x > width || y > height) return []
      return [{ x, y, size, share: Math.round((8 * depth) / deepest) / 8 }]
    }),
  )
}

/** Where the boat was at a moment: on the way between the places that were noted. */
export function placeAt(track: Track, atS: number): { x: number; y: number } | null {
  const { way } = track
  if (!way.length) return null
  const next = way.findIndex((one) => one.atS >= atS)
  if (next <= 0) return next === 0 ? way[0]! : way[way.length - 1]!
  const [one, other] = [way[next - 1]!, way[next]!]
  const share = (atS - one.atS) / Math.max(other.atS - one.atS, 1e-9)
  return { x: one.x + share * (other.x - one.x), y: one.y + share * (other.y - one.y) }
}
