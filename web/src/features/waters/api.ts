// What the charts of waters ask of the server.
import { api, take, type Schemas } from '@/shared/api/client'

export type ChartMap = Schemas['ChartMap']
export type Feature = Schemas['Feature']
/** With all that a form can change. */
export type DraftFeature = Required<Feature>
/** Kinds with corners all round. */
export const AREAS: readonly Feature['kind'][] = ['closed_area', 'shore']
export type Looked = Schemas['Survey']
export type NewSurvey = Schemas['NewSurvey']
export type Leg = Schemas['Leg']
export type LegsWish = Schemas['LegsWish']

const at = (water_id: number) => ({ params: { path: { water_id } } })
export const getChart = (id: number, unit: 'm' | 'ft') =>
  take(api.GET('/api/waters/{water_id}/chart/', { params: { path: { water_id: id }, query: { unit } } }))
export const saveFeatures = (id: number, body: { features?: Feature[]; below_m?: number }) =>
  take(api.PUT('/api/waters/{water_id}/chart/', { ...at(id), body }))
export const addSurvey = (id: number, body: NewSurvey) => take(api.POST('/api/waters/{water_id}/surveys/', { ...at(id), body }))
export const dropSurvey = (id: number, survey_id: number) =>
  take(api.DELETE('/api/waters/{water_id}/surveys/{survey_id}/', { params: { path: { water_id: id, survey_id } } }))
export const planLegs = (water_id: number, wish: LegsWish) => take(api.POST('/api/plans/legs/', { body: { water_id, wish } }))
export const legsGpx = (water_id: number, wish: LegsWish) =>
  take(api.POST('/api/plans/legs.gpx', { body: { water_id, wish }, parseAs: 'text' })) as unknown as Promise<string>
