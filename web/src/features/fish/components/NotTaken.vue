<script setup lang="ts">
// Taps that the server has not taken: each can be mended, sent again or dropped. They stay until then.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { computed, ref } from 'vue'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import type { NotTaken, TripEvent } from '@/features/trip/delivery/outbox'
import NumberField from '@/shared/ui/NumberField.vue'
import type { Measure, Typed } from '@/shared/units/measures'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatClock } from '@/features/trip/logic/format'
import { newId } from '@/features/trip/logic/events'
import { useTripStore } from '@/features/trip/store'

const open = defineModel<boolean>({ required: true })

const delivery = useDeliveryStore()
const photos = usePhotoStore()
const store = useTripStore()
const display = useDisplayStore()
const mended = ref<Record<string, Typed>>({})
const dropping = ref<string | null>(null)
const problem = ref<string | null>(null)

const WORDS: Record<string, string> = {
  line_set: 'line set',
  hit: 'hit',
  hooked: 'fish on',
  landed: 'fish landed',
  lost: 'fish lost',
  mark_seen: 'mark',
  temperature_read: 'temperature',
  rod_rigged: 'rod rigged',
  move_taken: 'move taken',
}

interface Row {
  row: NotTaken
  what: string
  when: string
  /** The number in it that the server names, and how it is measured. */
  number: { name: string; label: string; measure: Measure } | null
}

function numberOf({ field, event }: NotTaken): Row['number'] {
  const name = field.replace(/^payload\./, '')
  if (typeof (event.payload as Record<string, unknown>)[name] !== 'number') return null
  const measure: Measure | undefined = name.endsWith('_mps')
    ? 'speed'
    : name.endsWith('_degc')
      ? 'temperature'
      : name.endsWith('_m')
        ? 'long'
        : undefined
  return measure ? { name, label: name.replace(/_(m|mps|degc)$/, '').replaceAll('_', ' '), measure } : null
}

const rows = computed<Row[]>(() =>
  delivery.notTaken.map((row) => {
    const rodId = (row.event.payload as { rod_id?: string | null }).rod_id
    const rod = store.trip?.outfit.rods.find((item) => item.id === rodId)?.name ?? rodId
    return {
      row,
      what: `${WORDS[row.event.type] ?? row.event.type.replaceAll('_', ' ')}${rod ? `, ${rod}` : ''}`,
      when: formatClock(row.event.at_s, store.trip?.utc_offset_min ?? 0),
      number: numberOf(row),
    }
  }),
)

function valueOf({ row, number }: Row): Typed {
  return row.id in mended.value ? mended.value[row.id]! : ((row.event.payload as Record<string, unknown>)[number!.name] as number)
}

async function again(item: Row): Promise<void> {
  const { row, number } = item
  problem.value = null
  const value = number ? valueOf(item) : null
  if (number && typeof value !== 'number') {
    problem.value = `${number.label}: type a number.`
    return
  }
  // An id that stands for something else already is given up for a new one.
  const id = row.field === 'id' ? newId() : row.event.id
  const payload = number ? { ...row.event.payload, [number.name]: value } : row.event.payload
  try {
    await delivery.sendAgain(row, { ...row.event, id, payload: payload as TripEvent['payload'] })
    delete mended.value[row.id]
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}

/** The second press drops it: it is the only copy. */
async function surely(id: string, act: () => Promise<void>): Promise<void> {
  if (dropping.value !== id) {
    dropping.value = id
    return
  }
  dropping.value = null
  await act()
}
const drop = (row: NotTaken): Promise<void> => surely(row.id, () => delivery.drop(row))
const dropPhoto = (id: string): Promise<void> => surely(id, () => photos.drop(id))
</script>

<template>
  <entry-sheet v-model="open" title="Not taken by the server" data-test="not-taken" wide>
    <v-card-text>
      <p class="label">
        Each of these is kept on this browser, and only here, until it is taken or dropped. They do not count in what Fish shows.
      </p>
      <p v-if="rows.length === 0 && photos.refused.length === 0">All is taken.</p>
      <div v-for="photo in photos.refused" :key="photo.id" class="row" data-test="refused-photo">
        <div class="what">
          <strong>photo</strong>
          <p>{{ photo.refused }}</p>
        </div>
        <div class="acts">
          <v-btn class="act solid" data-test="send-photo-again" @click="photos.sendAgain(photo)">Send again</v-btn>
          <v-btn class="act" data-test="drop-photo" @click="dropPhoto(photo.id)">{{
            dropping === photo.id ? 'Drop for good?' : 'Drop'
          }}</v-btn>
        </div>
      </div>
      <div v-for="item in rows" :key="item.row.id" class="row" :data-test="`refused-${item.row.event.type}`">
        <div class="what">
          <strong>{{ item.what }}</strong> <span class="label">{{ item.when }}</span>
          <p>{{ item.row.message }}</p>
        </div>
        <NumberField
          v-if="item.number"
          class="mend"
          :model-value="valueOf(item)"
          :label="item.number.label"
          :measure="item.number.measure"
          test="mend"
          @update:model-value="mended[item.row.id] = $event"
        />
        <div class="acts">
          <v-btn class="act solid" data-test="send-again" @click="again(item)">{{ item.number ? 'Mend and send' : 'Send again' }}</v-btn>
          <v-btn class="act" data-test="drop" @click="drop(item.row)">{{ dropping === item.row.id ? 'Drop for good?' : 'Drop' }}</v-btn>
        </div>
      </div>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
    </v-card-text>
    <v-card-actions><v-btn class="act" @click="open = false">Close</v-btn></v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.what {
  flex: 1 1 200px;
}
.mend {
  flex: 0 1 96px;
}
.acts {
  display: flex;
  gap: 8px;
}
.act {
  min-height: var(--touch);
  font-size: 16px;
}
</style>
