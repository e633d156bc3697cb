// Fish follows the boat's instruments: as soon as one of them has told the trip something new, it is taken in.
import { onBeforeUnmount, watch } from 'vue'
import { useInstrumentsStore } from '@/features/instruments/store'
import { useTripStore } from '@/features/trip/store'

export function useLive(): void {
  const instruments = useInstrumentsStore()
  const trip = useTripStore()
  onBeforeUnmount(instruments.look())
  watch(
    () => instruments.told?.heard?.recorded,
    (now, before) => {
      if (before !== undefined && now !== before) void trip.sync()
    },
  )
}
