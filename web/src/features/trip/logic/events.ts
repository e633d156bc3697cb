// Making events: an id of its own and the trip's time. What they mean is the core's business.
import type { TripEvent } from '../api'

export type EventType = TripEvent['type']
export type EventPayload = TripEvent['payload']

/** Make an event now. */
export function makeEvent(type: EventType, payload: EventPayload | Record<string, never>, atS: number): TripEvent {
  return { id: newId(), at_s: Math.round(atS * 1000) / 1000, type, payload: payload as EventPayload }
}

/** A new id for an event. */
export function newId(): string {
  if ('randomUUID' in crypto) return crypto.randomUUID()
  // Plain HTTP on the boat's own network has no randomUUID: build version 4 from random bytes.
  const bytes = (crypto as Crypto).getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6]! & 0x0f) | 0x40
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}
