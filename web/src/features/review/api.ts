// The season: days, trends, what to begin with, and other people's spreadsheets.
import { api, take, type Schemas } from '@/shared/api/client'
import type { TrackFile } from './logic/track'

export type Season = Schemas['Season']
export type SeasonDay = Schemas['SeasonDay']
export type Trend = Schemas['Trend']
export type Bar = Schemas['Bar']
export type Begin = Schemas['Begin']
export type BiteRow = Schemas['BiteRow']
export type SheetRead = Schemas['SheetRead']
export type SheetAsked = Schemas['SheetAsked']
export type Species = 'trout' | 'kokanee' | 'striper'
export type UnitsName = 'us' | 'metric'

export interface SeasonAsked {
  species?: Species
  water_name?: string
}

/** The season; with `daysOnly` its days without what stands behind them, which is there sooner. */
export const getSeason = (asked: SeasonAsked, units: UnitsName, daysOnly = false): Promise<Season> =>
  take(api.GET('/api/seasons/', { params: { query: { ...asked, units, ...(daysOnly ? { days_only: true } : {}) } } }))

export const beginWith = (asked: SeasonAsked & { day?: string; surface_degc?: number }): Promise<Begin> =>
  take(api.GET('/api/seasons/begin/', { params: { query: asked } }))

export const readSheet = (body: SheetAsked): Promise<SheetRead> => take(api.POST('/api/seasons/sheet/', { body }))

/** The boat's way and what happened on it, as GeoJSON. */
export const getTrack = async (tripId: string): Promise<TrackFile> =>
  (await take(api.GET('/api/trips/{trip_id}/export.geojson', { params: { path: { trip_id: tripId } } }))) as unknown as TrackFile

export const listBites = (tripId: string): Promise<BiteRow[]> =>
  take(api.GET('/api/seasons/bites/{trip_id}/', { params: { path: { trip_id: tripId } } }))
