// The day that is planned: what is asked, what comes of it; while something is dragged, roughly and at once.
import { reactive, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { today } from '@/features/trip/logic/format'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { readProfile, writeProfile } from '../logic/profile'
import { getWeather, lastSurface, readDayFile, tryDay, type Asked, type DayTried, type KeptPlan, type WeatherHour } from '../api'

type Pairs = readonly (readonly number[])[]

export interface Wishes {
  water_id: number | null
  species: Asked['species']
  day: string
  surface: Typed
  secchi: number
  /** Depth and temperature a line, as typed; empty where nobody lowered a thermometer. */
  profile: string
  air_low: Typed
  air_high: Typed
  cold_school: string | null
  colour_school: string
  /** How far the ramp is, how fast one gets there, how long fuel or battery last, min; as far as anybody said. */
  way: Typed
  home: Typed
  endurance: Typed
  /** A river's current, and how far it fell since the level was noted. */
  current: Typed
  fell: Typed
}

export interface DayPlanning {
  wishes: Wishes
  /** Hours of weather that were fetched or drawn; null while the day is typed. */
  hours: ShallowRef<WeatherHour[] | null>
  words: Ref<string>
  /** How old the forecast is, s, and what went wrong when it was asked for. */
  age: Ref<number | null>
  trouble: Ref<string>
  day: ShallowRef<DayTried | null>
  problem: Ref<string | null>
  busy: Ref<boolean>
  asked: (rough: boolean) => Asked | null
  compute: (rough?: boolean) => void
  fetchWeather: () => Promise<void>
  findStart: () => Promise<void>
  lastProfile: ShallowRef<Pairs>
  takeProfile: () => void
  takeFile: (kind: 'weather' | 'profile', text: string) => Promise<void>
  reopen: (kept: KeptPlan) => void
  draw: (what: 'wind_mps' | 'cloud', values: number[], done: boolean) => void
}

export function useDay(): DayPlanning {
  const display = useDisplayStore()
  const wishes = reactive<Wishes>({
    water_id: null,
    species: 'trout',
    day: today(),
    surface: null,
    secchi: 6,
    profile: '',
    air_low: 3,
    air_high: 15,
    cold_school: null,
    colour_school: 'soft_then_flash',
    way: null,
    home: null,
    endurance: null,
    current: null,
    fell: null,
  })
  /** What a thermometer read on the last trips here, for who wants to begin from it. */
  /** The surface that was read last here, and when. */
  const read = shallowRef<{ degc: number; at_s: number } | null>(null)
  const lastProfile = shallowRef<Pairs>([])
  const hours = shallowRef<WeatherHour[] | null>(null)
  const words = ref('')
  const age = ref<number | null>(null)
  const trouble = ref('')
  const day = shallowRef<DayTried | null>(null)
  const problem = ref<string | null>(null)
  const busy = ref(false)
  /** What was asked last: the page is at rest when this is answered, not when an older one is. */
  let newest: Asked | null = null

  const run = latestOnly(
    tryDay,
    (answer, body) => {
      day.value = answer
      problem.value = null
      busy.value = body !== newest
    },
    (error, body) => {
      problem.value = describeError(error, display.units)
      busy.value = body !== newest
    },
  )

  function asked(rough: boolean): Asked | null {
    const typed = readProfile(wishes.profile, display.units)
    if (typed.bad !== null) throw new Error(`Profile, line ${typed.bad}: depth, temperature and oxygen if known, such as “20 48.5”.`)
    if (wishes.water_id === null) return null
    return {
      water_id: wishes.water_id,
      species: wishes.species,
      day: wishes.day,
      ...(typed.profile.length ? { profile: typed.profile } : surface()),
      ...(typed.oxygen.length ? { oxygen: typed.oxygen } : {}),
      ...wayHome(),
      ...river(),
      secchi_m: wishes.secchi,
      hours: hours.value,
      typed: hours.value
        ? null
        : {
            air_low_degc: settled(wishes.air_low, 'Coldest air'),
            air_high_degc: settled(wishes.air_high, 'Warmest air'),
            humidity: 0.6,
            cloud: 0.3,
            wind_mps: 1.5,
            wind_from_deg: 225,
          },
      weather_words: hours.value ? words.value : null,
      schools: { colour: wishes.colour_school, ...(wishes.cold_school ? { cold_morning: wishes.cold_school } : {}) },
      rough,
    }
  }

  /** What was read on an earlier day is told with its age; nothing at all leaves it to the month. */
  function surface(): Pick<Asked, 'surface_degc' | 'surface_age_h'> {
    if (wishes.surface === null) return { surface_degc: null }
    const degc = settled(wishes.surface, 'Surface')
    if (read.value === null || degc !== read.value.degc) return { surface_degc: degc }
    const dawnS = Date.parse(`${wishes.day}T06:00:00`) / 1000
    return { surface_degc: degc, surface_age_h: Math.max(dawnS - read.value.at_s, 0) / 3600 }
  }

  function wayHome(): Pick<Asked, 'home'> {
    if (wishes.way === null && wishes.home === null && wishes.endurance === null) return {}
    const given: Record<string, number> = {}
    if (wishes.way !== null) given.way_m = settled(wishes.way, 'The ramp')
    if (wishes.home !== null) given.home_mps = settled(wishes.home, 'Speed home')
    if (wishes.endurance !== null) given.endurance_h = settled(wishes.endurance, 'Fuel or battery') / 60
    return { home: given as Asked['home'] }
  }

  function river(): Pick<Asked, 'river'> {
    if (wishes.current === null && wishes.fell === null) return {}
    return {
      river: {
        current_mps: wishes.current === null ? 0 : settled(wishes.current, 'Current'),
        fell_m: wishes.fell === null ? 0 : settled(wishes.fell, 'Fell'),
      },
    }
  }

  function compute(rough = false): void {
    try {
      const body = asked(rough)
      if (!body) return
      busy.value = true
      newest = body
      run(body)
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  }

  async function fetchWeather(): Promise<void> {
    if (wishes.water_id === null) return
    trouble.value = ''
    try {
      const answer = await getWeather(wishes.water_id, wishes.day)
      trouble.value = answer.trouble
      age.value = answer.age_s
      hours.value = answer.hours.length ? answer.hours : null
      words.value = answer.words
    } catch (error) {
      hours.value = null
      trouble.value = describeError(error, display.units)
    }
  }

  /** The surface of the last trip, until somebody reads it anew. */
  async function findStart(): Promise<void> {
    if (wishes.water_id === null) return
    try {
      const last = await lastSurface(wishes.water_id)
      read.value = null
      if (last.temperature_degc !== null) {
        wishes.surface = last.temperature_degc
        if (last.at_s !== null) read.value = { degc: last.temperature_degc, at_s: last.at_s }
      } else wishes.surface = null
      lastProfile.value = last.profile
    } catch {
      // Then it is typed.
    }
  }

  const takeProfile = (): void => {
    wishes.profile = writeProfile(lastProfile.value, [], display.units)
  }

  /** A file is looked at by the server, which says what is wrong with it; what was there before stays. */
  async function takeFile(kind: 'weather' | 'profile', text: string): Promise<void> {
    try {
      const read = await readDayFile({ kind, text, water_id: wishes.water_id ?? 0, day: wishes.day })
      problem.value = null
      if (kind === 'profile') {
        wishes.profile = writeProfile(read.profile, read.oxygen, display.units)
        return
      }
      hours.value = read.hours
      words.value = 'weather from a file'
      age.value = null
      trouble.value = ''
      compute()
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  }

  /** A day that was kept: its wishes and its weather as they were, to be looked at and changed. */
  function reopen(kept: KeptPlan): void {
    const { asked: was } = kept
    const profile = (was.profile ?? []) as Pairs
    Object.assign(wishes, {
      water_id: was.water_id,
      species: was.species,
      day: was.day,
      surface: was.surface_degc ?? null,
      secchi: was.secchi_m ?? wishes.secchi,
      profile: profile.length ? writeProfile(profile, (was.oxygen ?? []) as Pairs, display.units) : '',
      cold_school: was.schools?.cold_morning ?? null,
      colour_school: was.schools?.colour ?? wishes.colour_school,
      way: was.home?.way_m ?? null,
      home: was.home?.home_mps ?? null,
      endurance: was.home?.endurance_h == null ? null : was.home.endurance_h * 60,
      current: was.river?.current_mps ?? null,
      fell: was.river?.fell_m ?? null,
    })
    hours.value = was.hours ?? null
    words.value = was.weather_words ?? kept.view.weather_words
    age.value = null
    trouble.value = ''
    day.value = kept
    problem.value = null
  }

  function draw(what: 'wind_mps' | 'cloud', values: number[], done: boolean): void {
    const from = hours.value ?? day.value?.hours
    if (!from) return
    hours.value = from.map((hour, i) => ({ ...hour, [what]: values[i]! }))
    if (!words.value.endsWith('drawn over')) words.value = words.value ? `${words.value}, drawn over` : 'typed and drawn over'
    compute(!done)
  }

  return {
    wishes,
    hours,
    words,
    age,
    trouble,
    day,
    problem,
    busy,
    asked,
    compute,
    fetchWeather,
    findStart,
    lastProfile,
    takeProfile,
    takeFile,
    reopen,
    draw,
  }
}
