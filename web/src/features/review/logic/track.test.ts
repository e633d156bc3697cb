import { describe, expect, it } from 'vitest'
import { placeAt, trackOf, type TrackFile } from './track'

const T0 = '2026-04-14T13:00:00+00:00'
const T1 = '2026-04-14T13:10:00+00:00'
const file: TrackFile = {
  features: [
    {
      geometry: {
        type: 'LineString',
        coordinates: [
          [-115, 44],
          [-115, 44.01],
        ],
      },
      properties: { kind: 'track', times: [T0, T1] },
    },
    { geometry: { type: 'Point', coordinates: [-114.99, 44] }, properties: { kind: 'landed', at: T1, text: 'trout' } },
  ],
}

describe('a track', () => {
  it('is drawn in metres, north up and to scale', () => {
    const track = trackOf(file, undefined)!
    const [from, to] = track.way
    expect(from!.y - to!.y).toBeCloseTo(1113.2)
    expect(to!.x).toBe(from!.x)
    // A hundredth of a degree of longitude at 44 degrees north: cos(44.01°) of that.
    expect(track.spots[0]!.x - from!.x).toBeCloseTo(1113.2 * Math.cos((44.01 * Math.PI) / 180), 0)
    expect(track.spots[0]).toMatchObject({ kind: 'landed', text: 'trout', atS: Date.parse(T1) / 1000 })
  })

  it('says where the boat was between two places, and no further than the ends', () => {
    const track = trackOf(file, undefined)!
    const start = Date.parse(T0) / 1000
    expect(placeAt(track, start + 300)!.y).toBeCloseTo((track.way[0]!.y + track.way[1]!.y) / 2)
    expect(placeAt(track, start - 50)).toMatchObject({ y: track.way[0]!.y })
    expect(placeAt(track, start + 9999)).toMatchObject({ y: track.way[1]!.y })
  })

  it('has the depths of the chart under it, and none where the chart ends', () => {
    const chart = {
      south_west: { latitude_deg: 44, longitude_deg: -115 },
      cell_m: 100,
      origin: '',
      rows: [
        [5, null],
        [10, 1e9],
      ],
    } as never
    const cells = trackOf(file, chart)!.cells
    expect(cells).toHaveLength(3)
    expect(cells.at(-1)!.share).toBe(1)
  })

  it('is none where no place was noted', () => {
    expect(trackOf({ features: [] }, undefined)).toBeNull()
  })
})
