// Which trip a place shows: the one asked for, else the one in progress, else the last.
import { LinkDownError, SignedOutError } from '@/shared/api/client'
import { listTrips } from '../api'

/** Each login has its own: the next person on this browser begins with theirs. */
const lastTrip = (owner: string | null): string => `coldwake.trip.${owner ?? ''}`

export async function currentTrip(asked: unknown, owner: string | null): Promise<string | null> {
  if (typeof asked === 'string') return asked
  try {
    const { trips } = await listTrips()
    return (trips.find((trip) => !trip.is_ended) ?? trips[0])?.id ?? null
  } catch (error) {
    if (error instanceof LinkDownError || error instanceof SignedOutError) return localStorage.getItem(lastTrip(owner))
    throw error
  }
}

export function rememberTrip(id: string, owner: string | null): void {
  localStorage.setItem(lastTrip(owner), id)
}
