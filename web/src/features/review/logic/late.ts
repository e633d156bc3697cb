// The record of a day that is over changes by events alone: what was missed, and what never was.
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { makeEvent, type EventPayload, type EventType } from '@/features/trip/logic/events'

/** Tell something late, at its own moment; throws where it cannot be kept, or the server does not take it. */
export async function tellLate(tripId: string, type: EventType, payload: EventPayload, atS: number): Promise<void> {
  const delivery = useDeliveryStore()
  const refused = delivery.progress.notTaken
  await delivery.keep(tripId, makeEvent(type, payload, atS))
  await delivery.flush()
  if (delivery.progress.notTaken > refused) throw new Error('The server did not take it: Fish lists why.')
}
