// The number to set, spoken when a rod gets another: for eyes that are on the water and hands that are wet.
import { watch } from 'vue'
import type { FishView, RodLine } from '@/features/trip/api'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, type UnitChoice } from '@/shared/units/units'

/** A length as it is said: "30 feet", "9.5 metres". */
function said(metres: number, units: UnitChoice): string {
  const text = formatLength(metres, units, false)
  if (units.length === 'ft') return text === '1' ? '1 foot' : `${text} feet`
  return text === '1' ? '1 metre' : `${text} metres`
}

/** What a reel or a counter is set to, in words that are heard once. */
export function spokenNumber(name: string, number: RodLine['number'], units: UnitChoice): string {
  if (number.kind === 'counter') return `${name}: counter at ${said(number.setting_m, units)}`
  if (number.kind === 'line_out') return `${name}: ${said(number.setting_m, units)} out`
  const colours = number.colours === 1 ? '1 colour' : `${number.colours} colours`
  if ((number.backing_m ?? 0) > 0.15) return `${name}: ${colours} and ${said(number.backing_m!, units)} of backing`
  return (number.rest_m ?? 0) > 0.15 ? `${name}: ${colours} and ${said(number.rest_m!, units)}` : `${name}: ${colours}`
}

export function useSpoken(view: () => FishView | null): void {
  const display = useDisplayStore()
  let before: Map<string, number | null> | null = null
  watch(
    () => view()?.rods.map((rod) => [rod.id, rod.status === 'fishing' ? (rod.last_setting_m ?? null) : null] as const) ?? null,
    (now) => {
      const known = before
      before = now === null ? null : new Map(now)
      // What stood there when the page opened is no news.
      if (!now || !known || !display.spoken || !('speechSynthesis' in globalThis)) return
      const changed = view()!.rods.filter((rod) => rod.line && before!.get(rod.id) !== null && before!.get(rod.id) !== known.get(rod.id))
      if (!changed.length) return
      speechSynthesis.cancel()
      const text = changed.map((rod) => spokenNumber(rod.name, rod.line!.number, display.units)).join('. ')
      speechSynthesis.speak(new SpeechSynthesisUtterance(text))
    },
    { immediate: true },
  )
}
