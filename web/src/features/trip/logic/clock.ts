// A trip's own clock: the wall's, shifted; that of a practised trip goes faster too, or stands.
export interface TripClock {
  clock_shift_s?: number
  clock_set_s?: number
  clock_pace?: number
}

export function tripNowS(trip: TripClock | null | undefined, wallS: number): number {
  const paced = (wallS - (trip?.clock_set_s ?? 0)) * ((trip?.clock_pace ?? 1) - 1)
  return wallS - (trip?.clock_shift_s ?? 0) + paced
}
