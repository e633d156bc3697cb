// What Fish asks of the server.
import { api, take, type Schemas } from '@/shared/api/client'

export type FishView = Schemas['FishView']
export type RodView = Schemas['RodView']
export type RodLine = Schemas['RodLine']
export type LineNumber = Schemas['LineNumber']
export type PlanView = Schemas['PlanView']
export type ManoeuvreView = Schemas['ManoeuvreView']
export type Frame = Schemas['Frame']
export type Tangle = Schemas['Tangle']
export type NumberAtSpeed = Schemas['NumberAtSpeed']
export type LineOrders = Schemas['LineOrders']
export type BenchView = Schemas['BenchView']
export type SpreadCheck = Schemas['SpreadCheck']
export type BesideView = Schemas['BesideView']
export type LookState = Schemas['LookState']
export type LadderStep = Schemas['LadderStep']
export type LadderAsked = Schemas['LadderAsked']
export type ShelfPiece = Schemas['ShelfPiece']
export type TackleBrought = Schemas['TackleBrought']
export type RodSetup = Schemas['RodSetup']
export type BottomCall = Schemas['BottomCall']
export type KeepOut = Schemas['KeepOut']
export type TightestTurns = Schemas['TightestTurns']
export type Course = PlanView['course']
export type TripDocument = Schemas['Trip']
export type TripEvent = Schemas['Event']
export type TripList = Schemas['TripList']
export type NewTrip = Schemas['NewTrip']
export type Move = Schemas['Move']

export const listTrips = () => take(api.GET('/api/trips/'))
export const startTrip = (body: NewTrip) => take(api.POST('/api/trips/', { body }))

export type Kit = Schemas['Kit']
export const getKit = () => take(api.GET('/api/trips/kit/'))
export const firstDay = (body: Schemas['FirstDay']) => take(api.POST('/api/trips/first-day/', { body }))

const at = (tripId: string) => ({ params: { path: { trip_id: tripId } } })

export const getTrip = (id: string) => take(api.GET('/api/trips/{trip_id}/', at(id)))
/** The trip as it stood at a moment. */
export const getFishAt = (tripId: string, at_s: number) =>
  take(api.GET('/api/trips/{trip_id}/fish/', { params: { path: { trip_id: tripId }, query: { at_s } } }))
export const getFish = (id: string) => take(api.GET('/api/trips/{trip_id}/fish/', at(id)))
export const getEvents = (id: string, after: number) =>
  take(api.GET('/api/trips/{trip_id}/events/', { params: { path: { trip_id: id }, query: { after } } }))

export const getLines = (id: string, speed_mps: number) =>
  take(api.GET('/api/trips/{trip_id}/lines/', { params: { path: { trip_id: id }, query: { speed_mps } } }))

export const getNumber = (id: string, query: { rod_id: string; depth_m: number; speed_mps?: number }) =>
  take(api.GET('/api/trips/{trip_id}/number/', { params: { path: { trip_id: id }, query } }))

/** A turn by its radius or by its rate. */
export interface TurnAsked {
  radius_m?: number
  rate_degps?: number
}
export interface PlanAsked extends TurnAsked {
  course: Course
  leeway_deg?: number
}

export const getPlan = (id: string, query: PlanAsked & { at_s?: number }) =>
  take(api.GET('/api/trips/{trip_id}/plan/', { params: { path: { trip_id: id }, query } }))

/** The day of a kept plan, for a trip that is under way. */
export const takePlan = (id: string, body: Schemas['TakePlan']) => take(api.POST('/api/trips/{trip_id}/day/', { ...at(id), body }))

export type DaySoundings = Schemas['DaySoundings']
export type Ledger = Schemas['Ledger']
export const getLedger = (id: string) => take(api.GET('/api/trips/{trip_id}/ledger/', at(id)))
export const getDaySoundings = (id: string) => take(api.GET('/api/trips/{trip_id}/soundings/', at(id)))
export type BackOffer = Schemas['BackOffer']
export const getBack = (id: string, target_id?: string) =>
  take(api.GET('/api/trips/{trip_id}/back/', { params: { path: { trip_id: id }, query: { target_id } } }))
export const getTightest = (id: string) => take(api.GET('/api/trips/{trip_id}/tightest/', at(id)))

export interface ManoeuvreAsked extends TurnAsked {
  kind: 's_turn' | 'u_turn'
  toward: 'port' | 'starboard'
}

export const getManoeuvre = (id: string, query: ManoeuvreAsked) =>
  take(api.GET('/api/trips/{trip_id}/manoeuvre/', { params: { path: { trip_id: id }, query } }))

export const getNumbers = (id: string, query: { rod_id: string; depth_m: number; speed_mps: number[] }) =>
  take(api.GET('/api/trips/{trip_id}/numbers/', { params: { path: { trip_id: id }, query } }))

export const getOrders = (id: string) => take(api.GET('/api/trips/{trip_id}/orders/', at(id)))

export const postBench = (id: string, setup: RodSetup) =>
  take(api.POST('/api/trips/{trip_id}/bench/', { params: { path: { trip_id: id }, query: { fit: true } }, body: setup }))
export const postShelf = (id: string, body: RodSetup) => take(api.POST('/api/trips/{trip_id}/shelf/', { ...at(id), body }))
export const postLadder = (id: string, body: LadderAsked) => take(api.POST('/api/trips/{trip_id}/ladder/', { ...at(id), body }))
export const getBeside = (id: string) => take(api.GET('/api/trips/{trip_id}/beside/', at(id)))
export const getNews = (id: string) => take(api.GET('/api/trips/{trip_id}/news/', at(id)))
export type OpeningSpread = Schemas['OpeningSpread']
export type PlannedRod = Schemas['PlannedRod']
export const buildOpening = (id: string, body: { speed_mps?: number | null }) =>
  take(api.POST('/api/trips/{trip_id}/opening/', { ...at(id), body }))
export const judgeOpening = (id: string, body: Schemas['ChangedSpread']) =>
  take(api.POST('/api/trips/{trip_id}/opening/judge/', { ...at(id), body }))
export const getSpread = (id: string) => take(api.GET('/api/trips/{trip_id}/spread/', at(id)))

export type PhotoTold = Schemas['Photo']
export const listPhotos = (id: string) => take(api.GET('/api/trips/{trip_id}/photos/', at(id)))
