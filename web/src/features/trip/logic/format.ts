// How numbers and clocks are written on Fish.
import { formatDoubt, formatLength, lengthFromM, type UnitChoice } from '@/shared/units/units'
import type { LineNumber, RodLine } from '../api'

/** The number to put on reel or counter, as it is counted on the water. */
export function formatNumber(number: LineNumber, units: UnitChoice): string {
  if (number.kind === 'counter') {
    const cable = `${formatLength(number.setting_m, units)} cable`
    return number.above_ball_m! > 0 ? `${cable}, clip ${formatLength(number.above_ball_m!, units, false)} up` : cable
  }
  if (number.kind === 'line_out') return `${formatLength(number.setting_m, units)} out`
  const colours = number.colours === 1 ? '1 colour' : `${number.colours} colours`
  if (number.backing_m! > 0.15) return `${colours} + ${formatLength(number.backing_m!, units)} backing`
  const rest = formatLength(number.rest_m!, units)
  return lengthFromM(number.rest_m!, units) >= 0.5 ? `${colours} + ${rest}` : colours
}

/** A lure's depth with its doubt: "44 ft ± 2", "25 ft, 19–32" where the band is lopsided, or where it is when not under. */
export function formatDepth(line: Pick<RodLine, 'depth_m' | 'doubt_m' | 'shallow_m' | 'deep_m' | 'at_surface'>, units: UnitChoice): string {
  if (line.at_surface) return 'at the surface'
  const depth = formatLength(line.depth_m, units)
  if (line.doubt_m === null || line.shallow_m === null || line.deep_m === null) return depth
  const [above, below] = [line.depth_m - line.shallow_m, line.deep_m - line.depth_m].map((m) => Math.round(lengthFromM(m, units)))
  if (above === below) return `${depth} ${formatDoubt(line.doubt_m, units)}`
  const [from, to] = [line.shallow_m, line.deep_m].map((m) => formatLength(m, units, false))
  return `${depth}, ${from}–${to}`
}

/** Time gone by: "4 min", "1 h 20". */
export function formatElapsed(sinceS: number | null, nowS: number): string {
  if (sinceS === null) return '–'
  const minutes = Math.max(0, Math.floor((nowS - sinceS) / 60))
  if (minutes < 60) return `${minutes} min`
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
}

/** Clock time at the water. */
export function formatClock(atS: number, utcOffsetMin: number): string {
  const local = new Date((atS + utcOffsetMin * 60) * 1000)
  return `${String(local.getUTCHours()).padStart(2, '0')}:${String(local.getUTCMinutes()).padStart(2, '0')}`
}

export function formatPercent(probability: number): string {
  const percent = Math.round(probability * 100)
  return `${Math.min(99, Math.max(1, percent))} %`
}

/** An age in words: minutes, then hours and minutes. */
export function formatAge(seconds: number): string {
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return `${minutes} min`
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
}

/** The day at the water: an evening trip is not tomorrow's. */
export function tripDay(trip: { started_at_s: number; utc_offset_min: number }): string {
  return new Date((trip.started_at_s + trip.utc_offset_min * 60) * 1000).toISOString().slice(0, 10)
}

/** Today by this device's calendar, as a date field takes it. */
export function today(): string {
  const now = new Date()
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`
}
