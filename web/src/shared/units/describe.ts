// An error of the core in the reader's own words and units. What is wrong is the core's to say.
import { CoreError } from '@/shared/core/protocol'
import { formatLength, formatSpeed, formatTemperature, type UnitChoice } from './units'

const NAMES: Record<string, string> = {
  speed_mps: 'Speed',
  depth_m: 'Depth',
  wanted_depth_m: 'Depth',
  setting_m: 'Line out',
  bottom_m: 'Depth of the bottom',
  temperature_degc: 'Temperature',
  above_mark_m: 'Distance above marks',
  length_m: 'Length',
  at_s: 'Time',
  gps_mps: 'GPS',
  drift_mps: 'Drift',
  into_mps: 'Into the wind',
  with_mps: 'With the wind',
}

/** What the bound is, by the reason that the core gives. */
const WHY: Record<string, string> = { bottom: 'bottom', reel: 'length on the reel' }

/** Write a quantity by the unit its field is kept in. */
function quantity(field: string, value: number, units: UnitChoice): string {
  if (field.endsWith('_mps')) return formatSpeed(value, units)
  if (field.endsWith('_degc')) return formatTemperature(value, units)
  if (field.endsWith('_m')) return formatLength(value, units)
  return String(value)
}

/** Where in a list or a file it stands: “row 2”, “profile 3”; nothing for an event, which stands alone. */
function placeOf(field: string): string {
  const parts = field.split('.').slice(0, -1)
  return parts
    .filter((part) => /^row \d+$|\[\d+\]$/.test(part) && !part.startsWith('events['))
    .map((part) => part.replace(/\[(\d+)\]$/, (_, index: string) => ` ${Number(index) + 1}`))
    .join(', ')
}

/** The core's own sentence, with the field as it is called and its value in the reader's units. */
function sentence(error: CoreError, name: string, say: (value: number) => string): string {
  if (!error.message.startsWith(error.field)) return `${name}: ${error.message}`
  const rest = error.message.slice(error.field.length)
  return name + rest.replace(/^ \((-?\d[\d.eE+-]*)\)/, (_, value: string) => ` (${say(Number(value))})`)
}

/** Say an error to a person; `called` is what the field is called where it was typed. */
export function describeError(error: unknown, units: UnitChoice, called?: string): string {
  if (!(error instanceof CoreError)) return error instanceof Error ? error.message : String(error)
  if (called && error.reason === 'missing') return `${called} is needed to compute with it.`
  const field = error.field.split('.').at(-1)!
  const place = placeOf(error.field)
  const known = called ?? NAMES[field]
  const bare = known ?? (field || 'Input')
  const name = place ? `${place.charAt(0).toUpperCase()}${place.slice(1)}, ${bare.toLowerCase()}` : bare
  const say = (value: number): string => quantity(field, value, units)
  if (error.code === 'too_deep') return `${name}: cannot be reached at this speed; deepest is ${say(error.limit!)}.`
  if (error.code === 'too_shallow') return `${name}: cannot be held so shallow at this speed; shallowest is ${say(error.limit!)}.`
  if (error.low !== null && error.high !== null) return `${name}: set ${say(error.low)} to ${say(error.high)}.`
  if (error.high !== null) {
    const why = WHY[error.reason]
    return `${name}: at most ${say(error.high)}${why ? `, the ${why}` : ''}.`
  }
  return place ? sentence(error, name, say) : known ? `${name}: ${error.message}` : error.message
}
