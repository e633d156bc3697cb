// A season in numbers, to give away: without places unless they are chosen, and never with a trip's name.
import { formatLength, formatTemperature, type UnitChoice } from '@/shared/units/units'
import type { Season } from '../api'

export interface SeasonCard {
  title: string
  figures: { value: string; label: string }[]
  months: { name: string; landed: number }[]
  lines: string[]
}
type Day = Season['days'][number]

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

function sum(days: readonly Day[], pick: (day: Day) => number): number {
  return days.reduce((all, day) => all + pick(day), 0)
}

/** The card of a season; with the waters' names only where they are chosen. */
export function cardOf(season: Season, withPlaces: boolean, units: UnitChoice): SeasonCard {
  const { days } = season
  const years = [...new Set(days.map((day) => day.day.slice(0, 4)))].sort()
  const landed = sum(days, (day) => day.landed)
  const cast = sum(days, (day) => day.cast_landed)
  const seen = [...new Set(days.map((day) => Number(day.day.slice(5, 7))))].sort((a, b) => a - b)
  const best = days.reduce<Day | null>((top, day) => (day.landed > (top?.landed ?? 0) ? day : top), null)
  const lines: string[] = []
  if (best) {
    const at = best.warm_last_degc === null ? '' : ` at a surface of ${formatTemperature(best.warm_last_degc, units)}`
    const deep = best.fished_m === null ? '' : `, biting at ${formatLength(best.fished_m, units)}`
    lines.push(`Best day: ${best.landed} landed${at}${deep}.`)
  }
  const earned = new Map<string, number>()
  for (const day of days) if (day.best) earned.set(day.best, (earned.get(day.best) ?? 0) + 1)
  const [look] = [...earned].sort((one, other) => other[1] - one[1])
  if (look) lines.push(`Most hits, on ${look[1]} day${look[1] === 1 ? '' : 's'}: ${look[0]}.`)
  if (cast) lines.push(`${cast} of them were cast to, not trolled.`)
  if (withPlaces) lines.push(`On ${[...new Set(days.map((day) => day.water_name))].filter(Boolean).sort().join(', ')}.`)
  return {
    title: `${season.species}, ${years.length > 1 ? `${years[0]} to ${years.at(-1)}` : (years[0] ?? '')}`,
    figures: [
      { value: `${days.length}`, label: days.length === 1 ? 'day' : 'days' },
      { value: `${Math.round(sum(days, (day) => day.minutes) / 60)}`, label: 'rod-hours' },
      { value: `${sum(days, (day) => day.hits)}`, label: 'hits' },
      { value: `${landed}`, label: 'landed' },
      { value: `${sum(days, (day) => day.kept)}`, label: 'kept' },
    ],
    months: seen.map((month) => ({
      name: MONTHS[month - 1]!,
      landed: sum(
        days.filter((day) => Number(day.day.slice(5, 7)) === month),
        (day) => day.landed,
      ),
    })),
    lines,
  }
}

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!)
}

/** One page that stands alone: the picture, and its numbers as a table. */
export function pageOf(card: SeasonCard, picture: string): string {
  const row = (name: string, value: string | number): string => `<tr><th>${escaped(name)}</th><td>${escaped(String(value))}</td></tr>`
  const rows = [
    ...card.figures.map((figure) => row(figure.label, figure.value)),
    ...card.months.map((month) => row(`landed in ${month.name}`, month.landed)),
  ]
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escaped(card.title)}</title><body style="font-family:sans-serif;max-width:820px;margin:24px auto">${picture}<table>${rows.join('')}</table></body></html>`
}
