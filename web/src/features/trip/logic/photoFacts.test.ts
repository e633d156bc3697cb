import { describe, expect, it } from 'vitest'
import { photoFacts, takenS } from './photoFacts'

type Entry = [tag: number, type: number, value: string | number[]]

/** A JPEG that holds nothing but these tags, written by the Exif standard's own layout (little endian). */
function jpeg(exif: Entry[], gps: Entry[]): ArrayBuffer {
  const bytes: number[] = []
  const short = (n: number): number[] => [n & 255, (n >> 8) & 255]
  const long = (n: number): number[] => [...short(n & 0xffff), ...short(n >>> 16)]
  const sizeOf = (entries: Entry[]): number => 2 + 12 * entries.length + 4
  const dataOf = ([, type, value]: Entry): number[] =>
    typeof value === 'string' ? [...value].map((c) => c.charCodeAt(0)).concat(0) : type === 5 ? value.flatMap(long) : value.flatMap(short)
  const ifd = (entries: Entry[], at: number): number[] => {
    const head: number[] = short(entries.length)
    const tail: number[] = []
    for (const entry of entries) {
      const data = entry[1] === 4 ? long((entry[2] as number[])[0]!) : dataOf(entry)
      const count = entry[1] === 5 ? data.length / 8 : entry[1] === 4 ? 1 : data.length
      head.push(...short(entry[0]), ...short(entry[1]), ...long(count))
      if (data.length <= 4) head.push(...data, ...Array<number>(4 - data.length).fill(0))
      else {
        head.push(...long(at + sizeOf(entries) + tail.length))
        tail.push(...data)
      }
    }
    return [...head, ...long(0), ...tail]
  }
  const root = 8
  const first =
    root +
    sizeOf([
      [0, 4, [0]],
      [0, 4, [0]],
    ] as Entry[])
  const exifIfd = ifd(exif, first)
  const second = first + exifIfd.length
  const tiff = [
    0x49,
    0x49,
    0x2a,
    0,
    ...long(root),
    ...ifd(
      [
        [0x8769, 4, [first]],
        [0x8825, 4, [second]],
      ],
      root,
    ),
    ...exifIfd,
    ...ifd(gps, second),
  ]
  const app1 = [0x45, 0x78, 0x69, 0x66, 0, 0, ...tiff]
  const length = app1.length + 2
  bytes.push(0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255, ...app1, 0xff, 0xd9)
  return new Uint8Array(bytes).buffer
}

const TAKEN: Entry = [0x9003, 2, '2026:04:14 07:12:30']

describe('what a picture says of itself', () => {
  it('is when by its own clock, and where', () => {
    const facts = photoFacts(
      jpeg(
        [TAKEN, [0x9011, 2, '-06:00']],
        [
          [1, 2, 'N'],
          [2, 5, [44, 1, 30, 1, 0, 1]],
          [3, 2, 'W'],
          [4, 5, [115, 1, 15, 1, 0, 1]],
        ],
      ),
    )
    expect(facts.place!.latitude_deg).toBeCloseTo(44.5)
    expect(facts.place!.longitude_deg).toBeCloseTo(-115.25)
    // 7:12:30 six hours behind UTC.
    expect(takenS(facts, -420)).toBe(Date.UTC(2026, 3, 14, 13, 12, 30) / 1000)
  })

  it('goes by the clock at the water where it knows no zone', () => {
    const facts = photoFacts(jpeg([TAKEN], []))
    expect(facts.place).toBeNull()
    expect(takenS(facts, -420)).toBe(Date.UTC(2026, 3, 14, 14, 12, 30) / 1000)
  })

  it('is nothing in a file that holds none', () => {
    expect(photoFacts(new Uint8Array([1, 2, 3, 4]).buffer)).toEqual({ localS: null, offsetMin: null, place: null })
    expect(takenS(photoFacts(new ArrayBuffer(0)), 0)).toBeNull()
  })
})
