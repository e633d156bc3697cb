// A profile as it is typed: one depth and temperature a line, in the reader's own units.
import { parseNumber } from '@/shared/units/parse'
import { lengthToM, temperatureToC, type UnitChoice } from '@/shared/units/units'

/** Pairs in SI, or a line that is none; whether it can be a profile is for the core to say. */
export function readProfile(text: string, units: UnitChoice): { profile: [number, number][]; bad: number | null } {
  const profile: [number, number][] = []
  for (const [index, line] of text.split('\n').entries()) {
    if (!line.trim()) continue
    const parts = line
      .trim()
      .split(/[\s;]+|,\s+|,(?=[^,]*$)/)
      .filter(Boolean)
    const [depth, temperature] = parts.map((part) => parseNumber(part))
    if (parts.length !== 2 || depth === null || depth === undefined || temperature === null || temperature === undefined) {
      return { profile: [], bad: index + 1 }
    }
    profile.push([lengthToM(depth, units), temperatureToC(temperature, units)])
  }
  return { profile, bad: null }
}
