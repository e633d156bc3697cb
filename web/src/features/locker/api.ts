// What the Locker asks of the server.
import { api, take, type Schemas } from '@/shared/api/client'

export type Piece = Schemas['Piece']
export type PieceKind = Piece['kind']
export type Properties = Record<string, unknown>
export type Boat = Schemas['Boat']
export type BoatRow = Schemas['BoatRow']
export type Place = Schemas['Place']
export type Rod = Schemas['Rod']
export type Water = Schemas['Water']
export type NewWater = Schemas['NewWater']
export type WaterRules = NonNullable<Schemas['NewWater']['rules']>
export type Imported = Schemas['Import']
export type Catalogue = Schemas['Catalogue']
export type Rows = 'check' | 'all' | 'good'

export const listPieces = (query: { search?: string; kind?: string; retired?: string }) =>
  take(api.GET('/api/locker/pieces/', { params: { query } }))
const at = (piece_id: number) => ({ params: { path: { piece_id } } })
type Sent = Schemas['NewPiece']
export const addPiece = (kind: PieceKind, properties: Properties) =>
  take(api.POST('/api/locker/pieces/', { body: { kind, properties } as unknown as Sent }))
export const changePiece = (id: number, kind: PieceKind, properties: Properties) =>
  take(api.PUT('/api/locker/pieces/{piece_id}/', { ...at(id), body: { kind, properties } as unknown as Sent }))
export const duplicatePiece = (id: number) => take(api.POST('/api/locker/pieces/{piece_id}/duplicate/', at(id)))
export const retirePiece = (id: number, is_retired: boolean) =>
  take(api.POST('/api/locker/pieces/{piece_id}/retire/', { ...at(id), body: { is_retired } }))
export const deletePiece = (id: number) => take(api.DELETE('/api/locker/pieces/{piece_id}/', at(id)))
export const setAboard = (outfit_id: number, piece_id: number, count: number) =>
  take(api.PUT('/api/locker/outfits/{outfit_id}/aboard/', { params: { path: { outfit_id } }, body: { piece_id, count } }))
export const getCatalogue = () => take(api.GET('/api/locker/catalogue/'))
export const addStarter = (outfit_id?: number) => take(api.POST('/api/locker/starter/', { params: { query: { outfit_id } } }))

/** The server refuses what is larger; a file of 50 MB need not travel to hear so. */
export const MOST_BYTES = 2_000_000
export const importCsv = (file: Blob, rows: Rows, outfit_id?: number) =>
  take(
    api.POST('/api/locker/import/', {
      params: { query: { rows, outfit_id } },
      body: file as unknown as string,
      bodySerializer: (body) => body as unknown as Blob,
      headers: { 'Content-Type': 'text/csv' },
    }),
  )

export const listBoats = () => take(api.GET('/api/locker/outfits/'))
export const addBoat = (body: Boat) => take(api.POST('/api/locker/outfits/', { body }))
export const changeBoat = (outfit_id: number, body: Boat) =>
  take(api.PUT('/api/locker/outfits/{outfit_id}/', { params: { path: { outfit_id } }, body }))

export const listWaters = () => take(api.GET('/api/waters/'))
export const addWater = (body: NewWater) => take(api.POST('/api/waters/', { body }))
export const changeWater = (water_id: number, body: NewWater) =>
  take(api.PUT('/api/waters/{water_id}/', { params: { path: { water_id } }, body }))
