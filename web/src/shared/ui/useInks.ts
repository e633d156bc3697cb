// The theme's colours for what is drawn on a canvas, which knows no CSS.
import { computed, type ComputedRef } from 'vue'
import { useTheme } from 'vuetify'

export interface Inks {
  ink: string
  soft: string
  line: string
  paper: string
}

export function useInks(): ComputedRef<Inks> {
  const theme = useTheme()
  return computed(() => {
    const colours = theme.current.value.colors as Record<string, string>
    return { ink: colours.ink!, soft: colours['ink-2']!, line: colours.line!, paper: colours.frost! }
  })
}
