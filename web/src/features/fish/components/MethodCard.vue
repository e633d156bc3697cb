<script setup lang="ts">
// The method of the hour: what the surface temperature calls for, and which school says so.
import { computed, ref } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, formatTemperature } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { formatAge, formatClock } from '@/features/trip/logic/format'

const props = defineProps<{ view: FishView; offsetMin?: number }>()
const emit = defineEmits<{ school: [school: string]; temperature: [] }>()

const display = useDisplayStore()
const method = computed(() => props.view.method)
const day = computed(() => props.view.day)
const clock = (atS: number) => formatClock(atS, props.offsetMin ?? 0)
/** How the day differs from its plan: "3° behind: the slow phase slides to 12:10". */
const departed = computed(() => {
  const off = day.value?.off_degc
  if (off === null || off === undefined || day.value!.departure === 'as planned') return ''
  const degrees = Math.abs(display.units.temperature === '°F' ? off * 1.8 : off)
  const by = degrees < 0.5 ? '' : `${Math.round(degrees)}° ${off < 0 ? 'behind' : 'ahead of'} the plan`
  const to = day.value!.slid_to_s ? `next change ${clock(day.value!.slid_to_s)}` : ''
  const head = [by, to].filter(Boolean).join(', ')
  return head ? `${head}: ${day.value!.departure}` : day.value!.departure
})
/** Why, in full: behind a tap. */
const whole = ref(false)
const SCHOOLS: Record<string, string> = { cover_water: 'Cover water', stay_slow: 'Stay slow' }
</script>

<template>
  <section class="method" aria-label="Method of the hour" data-test="method">
    <template v-if="method">
      <div class="label">
        Method of the hour · surface {{ view.surface_degc === null ? '–' : formatTemperature(view.surface_degc, display.units)
        }}<strong v-if="view.surface_old" data-test="method-age"> read {{ formatAge(view.surface_age_s!) }} ago: take it again</strong>
      </div>
      <h3 data-test="method-name">{{ method.name }}</h3>
      <dl>
        <div>
          <dt>speed</dt>
          <dd data-test="method-speed">
            {{ formatSpeed(method.speed_low_mps, display.units, false) }}–{{ formatSpeed(method.speed_high_mps, display.units) }}
          </dd>
        </div>
        <div v-if="method.off_bed_high_m">
          <dt>off bed</dt>
          <dd data-test="method-off-bed">
            {{ formatLength(method.off_bed_low_m, display.units, false) }}–{{ formatLength(method.off_bed_high_m, display.units) }}
          </dd>
        </div>
        <div>
          <dt>{{ method.off_bed_high_m ? 'in water' : 'depth' }}</dt>
          <dd data-test="method-depth">
            {{ formatLength(method.depth_top_m, display.units, false) }}–{{ formatLength(method.depth_base_m, display.units) }}
          </dd>
        </div>
        <div>
          <dt>back</dt>
          <dd>{{ formatLength(method.setback_low_m, display.units, false) }}–{{ formatLength(method.setback_high_m, display.units) }}</dd>
        </div>
        <div class="school">
          <dt>school</dt>
          <dd data-test="method-school" :title="`${method.school} (common practice)`">{{ method.school }}</dd>
        </div>
      </dl>
      <button class="why" :class="{ whole }" :aria-expanded="whole" data-test="method-why" @click="whole = !whole">
        <span data-test="method-plan">
          <strong v-if="departed">{{ departed }}. </strong>
          <template v-if="day?.next_name">From {{ clock(day.next_from_s!) }}: {{ day.next_name }}. </template>
          {{ method.reason }}<template v-if="day?.colours"> Colours: {{ day.colours }} ({{ day.colour_school }}).</template>
        </span>
      </button>
      <div v-if="method.alternatives?.length" class="schools" role="group" aria-label="School">
        <v-btn
          v-for="school in method.alternatives"
          :key="school"
          size="small"
          :class="{ chosen: school === method.id }"
          :data-test="`school-${school}`"
          @click="emit('school', school)"
        >
          {{ SCHOOLS[school] ?? school }}
        </v-btn>
      </div>
      <p v-if="method.caution" class="caution" role="alert">{{ method.caution }} Local rules come first.</p>
    </template>
    <template v-else>
      <div class="label">Method of the hour</div>
      <h3>Take the surface temperature</h3>
      <p>It decides speed and depth to begin with.</p>
      <v-btn class="take" @click="emit('temperature')">Enter it</v-btn>
    </template>
  </section>
</template>

<style scoped>
.method {
  padding: 4px 12px;
  background: var(--frost);
  border-left: 5px solid var(--line);
}
h3 {
  font-size: 16px;
  line-height: 1.2;
  font-weight: 700;
  font-stretch: 90%;
  margin: 1px 0 4px;
}
dl {
  display: flex;
  gap: 16px;
  margin: 0 0 2px;
}
.school {
  min-width: 0;
}
.school dd {
  overflow: hidden;
  text-overflow: ellipsis;
}
dt {
  font-size: 12px;
  color: var(--ink-2);
  font-weight: 600;
  white-space: nowrap;
}
dd {
  margin: 0;
  font-weight: 680;
  font-size: 16px;
  font-stretch: 88%;
  white-space: nowrap;
}
p {
  font-size: 13px;
  line-height: 1.3;
  margin: 0 0 4px;
}
.why {
  display: block;
  width: 100%;
  padding: 0;
  text-align: left;
  font-size: 13px;
  color: var(--ink);
}
.why span {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.why.whole span {
  white-space: normal;
}
.schools {
  display: flex;
  gap: 6px;
}
.schools .v-btn {
  min-height: 44px;
}
.caution {
  border: 2px solid var(--now);
  padding: 6px 8px;
  font-weight: 650;
}
</style>
