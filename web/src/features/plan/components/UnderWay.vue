<script setup lang="ts">
// The trips that are open: to go on with, or to end.
import { computed, ref } from 'vue'
import { getTrip, listTrips, type TripList } from '@/features/trip/api'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { tripNowS } from '@/features/trip/logic/clock'
import { makeEvent } from '@/features/trip/logic/events'
import { tripDay } from '@/features/trip/logic/format'

const list = defineModel<TripList>({ required: true })
const emit = defineEmits<{ problem: [text: string] }>()
const delivery = useDeliveryStore()
const open = computed(() => list.value.trips.filter((trip) => !trip.is_ended))

/** The trip whose end was asked for once: the second press ends it. */
const ending = ref<string | null>(null)

async function end(id: string): Promise<void> {
  if (ending.value !== id) {
    ending.value = id
    return
  }
  try {
    const trip = await getTrip(id)
    // Every trip goes by its own clock.
    const nowS = tripNowS(trip, delivery.nowS())
    await delivery.keep(id, makeEvent('trip_ended', {}, nowS))
    await delivery.flush()
    list.value = await listTrips()
  } catch (caught) {
    emit('problem', caught instanceof Error ? caught.message : String(caught))
  } finally {
    ending.value = null
  }
}
</script>

<template>
  <section v-if="open.length" class="open" aria-label="Open trips">
    <h2 class="label">Under way</h2>
    <article v-for="trip in open" :key="trip.id">
      <router-link :to="{ path: '/fish', query: { trip: trip.id } }"
        ><strong>{{ trip.name }}</strong
        ><span class="label"
          >{{ trip.water_name }} · {{ trip.species }} · {{ tripDay(trip)
          }}<template v-if="trip.skipper"> · with {{ trip.skipper }}</template></span
        ></router-link
      >
      <v-btn size="small" :data-test="`end-${trip.id}`" @click="end(trip.id)">
        {{ ending === trip.id ? 'Lines in? Press again' : 'End' }}
      </v-btn>
    </article>
    <router-link to="/rig/spread">Opening spread</router-link>
    <router-link to="/rig/card">Rig card</router-link>
  </section>
</template>

<style scoped>
.open {
  --touch: 44px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
  padding: 4px 12px;
  background: var(--frost);
}
article {
  display: flex;
  gap: 10px;
  align-items: center;
}
article a {
  display: grid;
  text-decoration: none;
  line-height: 1.2;
}
article strong {
  text-decoration: underline;
}
article .v-btn {
  --v-btn-height: 44px;
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
</style>
