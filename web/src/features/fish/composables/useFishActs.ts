// What can be done on Fish, by tap or key: each act becomes one event.
import { ref, type Ref } from 'vue'
import type { FishView, Move, RodView } from '@/features/trip/api'
import type { RodAct } from '../components/RodTile.vue'
import type { useTripStore } from '@/features/trip/store'

export type DialogName =
  | 'depth'
  | 'mark'
  | 'temperature'
  | 'bottom'
  | 'landed'
  | 'offset'
  | 'current'
  | 'wind'
  | 'gps'
  | 'calibrate'
  | 'place'
  | 'clearance'
  | 'sheet'
  | 'help'
  | 'not-taken'
  | 'note'
  | 'cast'
  | 'bite'
  | 'back'
  | null

export interface FishActs {
  dialog: Ref<DialogName>
  busy: Ref<boolean>
  rod(act: RodAct, rod: RodView): void
  take(move: Move): Promise<void>
  refuse(move: Move): Promise<void>
  sayWhy(answer: Move['answer']): Promise<void>
}

export interface FishActsOptions {
  store: ReturnType<typeof useTripStore>
  selected: Ref<string | null>
}

export function useFishActs({ store, selected }: FishActsOptions): FishActs {
  const dialog = ref<DialogName>(null)
  const busy = ref(false)

  function rod(act: RodAct, item: RodView): void {
    selected.value = item.id
    const rod_id = item.id
    if (act === 'depth' || act === 'landed' || act === 'calibrate' || act === 'sheet' || act === 'bite') dialog.value = act
    else if (act === 'hit' || act === 'hooked' || act === 'lost') {
      // A hand with a rod in it feels that the tap was taken.
      navigator.vibrate?.(30)
      void store.record(act, { rod_id })
    } else if (act === 'bait') void store.record('bait_checked', { rod_id })
    else if (act === 'tangled') void store.record('tangled', { rod_id })
    else if (act === 'looked') void store.record('checked', { item: item.look_item ?? 'tracks_true', outcome: 'ok', rod_id })
    else if (act === 'in') void store.record('line_in', { rod_id })
    else if (item.last_setting_m !== null) {
      void store.record('line_set', { rod_id, setting_m: item.last_setting_m, wanted_depth_m: item.wanted_depth_m })
    }
  }

  async function answer(type: 'move_taken' | 'move_refused', given: Move['answer']): Promise<void> {
    if (busy.value) return
    busy.value = true
    await store.record(type, given)
    busy.value = false
  }

  return {
    dialog,
    busy,
    rod,
    take: (move) => answer('move_taken', move.answer),
    refuse: (move) => answer('move_refused', move.answer),
    // Told of one that is put off already: it is put off anew, and remembered with its reason.
    sayWhy: (given) => answer('move_refused', given),
  }
}

/** The rod that a key speaks of: the chosen one, else the first that is out. */
export function rodForKey(view: FishView, selected: string | null): RodView | undefined {
  return view.rods.find((rod) => rod.id === selected) ?? view.rods.find((rod) => rod.line)
}
