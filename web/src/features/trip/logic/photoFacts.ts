// What a picture itself says of when and where it was taken: read, and then left behind with the rest.
import { load } from 'exifreader'

export interface PhotoFacts {
  /** Seconds since 1970-01-01 as if the camera's clock were UTC; null where it says nothing. */
  localS: number | null
  /** The camera's clock less UTC, minutes, where it says so. */
  offsetMin: number | null
  place: { latitude_deg: number; longitude_deg: number } | null
}

export function photoFacts(file: ArrayBuffer): PhotoFacts {
  let tags: ReturnType<typeof read>
  try {
    tags = read(file)
  } catch {
    // A picture without any says nothing; whether it is one at all is judged elsewhere.
    return { localS: null, offsetMin: null, place: null }
  }
  const said = (tags.exif?.DateTimeOriginal ?? tags.exif?.DateTime)?.description ?? ''
  const parts = /^(\d{4})[:-](\d\d)[:-](\d\d)[ T](\d\d):(\d\d):(\d\d)/.exec(said)?.slice(1).map(Number)
  const offset = /^([+-])(\d\d):(\d\d)$/.exec(tags.exif?.OffsetTimeOriginal?.description ?? '')
  const { Latitude: latitude_deg, Longitude: longitude_deg } = tags.gps ?? {}
  const placed = Number.isFinite(latitude_deg) && Number.isFinite(longitude_deg) && (latitude_deg !== 0 || longitude_deg !== 0)
  return {
    localS: parts ? Date.UTC(parts[0]!, parts[1]! - 1, parts[2]!, parts[3]!, parts[4]!, parts[5]!) / 1000 : null,
    offsetMin: offset ? (offset[1] === '-' ? -1 : 1) * (60 * Number(offset[2]) + Number(offset[3])) : null,
    place: placed ? { latitude_deg: latitude_deg!, longitude_deg: longitude_deg! } : null,
  }
}

const read = (file: ArrayBuffer) => load(file, { expanded: true })

/** The moment it was taken; a camera that does not know its zone went by the clock at the water. */
export function takenS(facts: PhotoFacts, utcOffsetMin: number): number | null {
  return facts.localS === null ? null : facts.localS - 60 * (facts.offsetMin ?? utcOffsetMin)
}
