// What Plan asks of the server.
import { api, take, type Schemas } from '@/shared/api/client'

export type Asked = Schemas['Asked']
export type DayTried = Schemas['DayTried']
export type DayView = Schemas['DayView']
export type Phase = Schemas['Phase']
export type PhaseOpening = Schemas['PhaseOpening']
export type WeatherHour = Schemas['WeatherHour']
export type Weather = Schemas['Weather']

export type FileAsked = Schemas['FileAsked']

export const tryDay = (body: Asked) => take(api.POST('/api/plans/day/', { body }))
const at = (plan_id: string) => ({ params: { path: { plan_id } } })
export const savePlan = (id: string, body: Asked) => take(api.PUT('/api/plans/{plan_id}/', { ...at(id), body }))
export type PlanRow = Schemas['PlanRow']
export type KeptPlan = Schemas['KeptPlan']
export const listPlans = () => take(api.GET('/api/plans/'))
export const getPlan = (id: string) => take(api.GET('/api/plans/{plan_id}/', at(id)))
export const dropPlan = (id: string) => take(api.DELETE('/api/plans/{plan_id}/', at(id)))
export const getWeather = (water_id: number, day: string) => take(api.GET('/api/plans/weather/', { params: { query: { water_id, day } } }))
export const lastSurface = (water_id: number) => take(api.GET('/api/trips/last-surface/', { params: { query: { water_id } } }))
export const readDayFile = (body: FileAsked) => take(api.POST('/api/plans/read/', { body }))
export type Earned = Schemas['Earned']
export const planOpening = (body: Schemas['PlannedOpening']) => take(api.POST('/api/trips/planned-opening/', { body }))
