// Which trip a place shows: the one asked for, else the one in progress, else the last.
import { LinkDownError } from '@/shared/api/client'
import { listTrips } from '../api'

const LAST_TRIP = 'coldwake.trip'

export async function currentTrip(asked: unknown): Promise<string | null> {
  if (typeof asked === 'string') return asked
  try {
    const { trips } = await listTrips()
    return (trips.find((trip) => !trip.is_ended) ?? trips[0])?.id ?? null
  } catch (error) {
    if (error instanceof LinkDownError) return localStorage.getItem(LAST_TRIP)
    throw error
  }
}

export function rememberTrip(id: string): void {
  localStorage.setItem(LAST_TRIP, id)
}
