// An act of a page whose failure is said on the page.
import { ref, type Ref } from 'vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'

/** What went wrong last, null when nothing did, and the act's runner. */
export function useAttempt(): { problem: Ref<string | null>; attempt: (act: () => Promise<void>) => Promise<void> } {
  const display = useDisplayStore()
  const problem = ref<string | null>(null)
  async function attempt(act: () => Promise<void>): Promise<void> {
    try {
      await act()
      problem.value = null
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  }
  return { problem, attempt }
}
