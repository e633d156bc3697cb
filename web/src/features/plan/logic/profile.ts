// A profile as it is typed: depth, temperature and, where it was measured, oxygen a line, in the reader's own units.
import { parseNumber } from '@/shared/units/parse'
import { lengthFromM, lengthToM, temperatureFromC, temperatureToC, type UnitChoice } from '@/shared/units/units'

type Pairs = [number, number][]

/** Pairs in SI, or a line that is none; whether it can be a profile is for the core to say. */
export function readProfile(text: string, units: UnitChoice): { profile: Pairs; oxygen: Pairs; bad: number | null } {
  const profile: Pairs = []
  const oxygen: Pairs = []
  for (const [index, line] of text.split('\n').entries()) {
    if (!line.trim()) continue
    const parts = line
      .trim()
      .split(/[\s;]+|,\s+|,(?=[^,]*$)/)
      .filter(Boolean)
    const [depth, temperature, mgpl] = parts.map((part) => parseNumber(part))
    const known = [depth, temperature, mgpl].slice(0, parts.length)
    if (parts.length < 2 || parts.length > 3 || known.some((value) => value === null || value === undefined)) {
      return { profile: [], oxygen: [], bad: index + 1 }
    }
    const at = lengthToM(depth!, units)
    profile.push([at, temperatureToC(temperature!, units)])
    if (parts.length === 3) oxygen.push([at, mgpl!])
  }
  return { profile, oxygen, bad: null }
}

/** The same the other way: what a file or an earlier trip holds, to be looked at and changed. */
export function writeProfile(profile: readonly (readonly number[])[], oxygen: readonly (readonly number[])[], units: UnitChoice): string {
  const airy = new Map(oxygen.map(([depth, mgpl]) => [depth, mgpl]))
  const round = (value: number) => String(Math.round(value * 10) / 10)
  return profile
    .map(([depth, degc]) => {
      const mgpl = airy.get(depth)
      const pair = `${round(lengthFromM(depth!, units))} ${round(temperatureFromC(degc!, units))}`
      return mgpl === undefined ? pair : `${pair} ${round(mgpl)}`
    })
    .join('\n')
}
