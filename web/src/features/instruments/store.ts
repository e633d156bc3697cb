// What the boat's instruments say, asked every second or two while somebody looks.
import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useSessionStore } from '@/features/account/store'
import { api, take, type Schemas } from '@/shared/api/client'

export type Instruments = Schemas['Instruments']
export type Source = Schemas['Source']
/** What speaks is mostly asked at an address; nothing of it is set right yet. */
export const BLANK: Source = {
  id: '',
  name: '',
  kind: 'tcp',
  host: '',
  port: 0,
  device: '',
  baud: 4800,
  pace: 1,
  is_on: true,
  transducer_m: 0,
  wheel_factor: 1,
  warm_degc: 0,
}
export type Value = Schemas['Value']
export type LogTold = Schemas['LogTold']
export type LogTaken = Schemas['LogTaken']

const EVERY_MS = 500
const SILENT_S = 10

export const useInstrumentsStore = defineStore('instruments', () => {
  const told = shallowRef<Instruments | null>(null)
  const problem = ref<unknown>(null)
  const visible = useDocumentVisibility()
  let looking = 0
  let asking = false

  const isSet = computed(() => (told.value?.sources.sources?.length ?? 0) > 0)

  /** Whether any of them has just said something. */
  const isHeard = computed(() => told.value?.heard?.sources.some((source) => source.age_s !== null && source.age_s < SILENT_S) ?? false)

  async function ask(): Promise<void> {
    if (asking || visible.value !== 'visible') return
    asking = true
    try {
      told.value = await take(api.GET('/api/instruments/', {}))
      problem.value = null
    } catch (error) {
      problem.value = error
    } finally {
      asking = false
    }
  }

  async function save(sources: Source[]): Promise<void> {
    await take(api.PUT('/api/instruments/', { body: { sources } }))
    await ask()
  }

  // What one login heard is none of the next one's business.
  const session = useSessionStore()
  watch(
    () => session.username,
    () => {
      told.value = null
      stream?.close()
      stream = null
    },
  )

  const asker = useIntervalFn(() => void ask(), EVERY_MS, { immediate: false })

  /** Pushed as it comes; where that breaks off, or a browser cannot, it is asked for. */
  let stream: EventSource | null = null
  function listen(): void {
    asker.resume()
    if (stream || typeof EventSource === 'undefined') return
    stream = new EventSource('/api/instruments/live/')
    stream.onmessage = (message: MessageEvent<string>) => {
      asker.pause()
      if (told.value) told.value = { ...told.value, heard: JSON.parse(message.data) as Instruments['heard'] }
    }
    // The browser tries again by itself, unless it was refused.
    stream.onerror = () => looking > 0 && asker.resume()
  }
  function hush(): void {
    asker.pause()
    stream?.close()
    stream = null
  }

  /** Begin to look; says how to end it. Where nothing is set up it is asked once and no more. */
  function look(always = false): () => void {
    looking += 1
    void ask().then(() => {
      if (looking > 0 && (always || isSet.value)) listen()
    })
    let over = false
    return () => {
      if (over) return
      over = true
      looking -= 1
      if (looking === 0) hush()
    }
  }

  /** Bring a recorded log here; says what is in it. */
  const bringLog = async (file: File): Promise<LogTold> =>
    take(
      api.PUT('/api/instruments/log/', {
        body: file as unknown as string,
        bodySerializer: (body) => body as BodyInit,
        headers: { 'Content-Type': 'text/plain' },
      }),
    )

  const takeLog = async (tripId: string, sourceId?: string): Promise<LogTaken> =>
    take(api.POST('/api/instruments/log/', { body: { trip_id: tripId, ...(sourceId ? { source_id: sourceId } : {}) } }))

  const wheelByRuns = async (runs: Schemas['WheelRuns']): Promise<number> =>
    (await take(api.POST('/api/instruments/wheel/', { body: runs }))).wheel_factor

  return { told, problem, isSet, isHeard, save, look, bringLog, takeLog, wheelByRuns }
})
