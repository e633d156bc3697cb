// Which units this person reads, and which theme: kept in this browser.
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { METRIC_UNITS, US_UNITS, type UnitChoice } from './units'

const KEY = 'coldwake.display'

export type ThemeName = 'glare' | 'beforeDawn'

interface Display {
  units: UnitChoice
  theme: ThemeName
  spoken: boolean
}

function stored(): Partial<Display> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Display>
  } catch {
    return {}
  }
}

export const useDisplayStore = defineStore('display', () => {
  const before = stored()
  const units = ref<UnitChoice>({ ...US_UNITS, ...before.units })
  const theme = ref<ThemeName>(before.theme === 'beforeDawn' ? 'beforeDawn' : 'glare')

  /** Whether the number to set is spoken: off until somebody wishes it. */
  const spoken = ref(before.spoken === true)

  watch(
    [units, theme, spoken],
    () => {
      try {
        localStorage.setItem(KEY, JSON.stringify({ units: units.value, theme: theme.value, spoken: spoken.value }))
      } catch {
        // A browser that keeps nothing still shows everything.
      }
    },
    { deep: true },
  )

  function toggleTheme(): void {
    theme.value = theme.value === 'glare' ? 'beforeDawn' : 'glare'
  }

  function toggleUnits(): void {
    units.value = units.value.length === 'ft' ? { ...METRIC_UNITS } : { ...US_UNITS }
  }

  function toggleNautical(): void {
    const usual = units.value.length === 'ft' ? US_UNITS.speed : METRIC_UNITS.speed
    units.value = { ...units.value, speed: units.value.speed === 'kn' ? usual : 'kn' }
  }

  return { units, theme, spoken, toggleTheme, toggleUnits, toggleNautical }
})
