// A speed under a finger: tried while it moves, set when it is let go.
import { computed, ref, type Ref } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedFromMps, tenthOfSpeed } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'

export interface SpeedDragOptions {
  track: Readonly<Ref<HTMLElement | null>>
  width: Readonly<Ref<number>>
  /** What the axis keeps free at either end, px. */
  pad: number
  mostMps: () => number
  nowMps: () => number
  onTry: (mps: number) => void
  onLetGo: () => void
  onSet: (mps: number) => void
}

/** The axis ends a little beyond all that works, at 4 mph or more: river plugs go to five. */
export function mostOnAxis(view: FishView): number {
  const out = view.rods.filter((rod) => rod.status !== 'in')
  return Math.max(1.9, view.speed_mps * 1.05, ...out.map((rod) => (rod.works?.high_mps ?? 0) * 1.05))
}

export function useSpeedDrag(options: SpeedDragOptions) {
  const display = useDisplayStore()
  const dragging = ref(false)

  function speedAt(event: PointerEvent): number {
    const box = options.track.value!.getBoundingClientRect()
    const share = (event.clientX - box.left - options.pad) / (options.width.value - 2 * options.pad)
    return tenthOfSpeed(Math.min(Math.max(share, 0), 1) * options.mostMps(), display.units)
  }
  function down(event: PointerEvent): void {
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    dragging.value = true
    options.onTry(speedAt(event))
  }
  function move(event: PointerEvent): void {
    if (dragging.value) options.onTry(speedAt(event))
  }
  function up(event: PointerEvent): void {
    if (!dragging.value) return
    dragging.value = false
    options.onSet(speedAt(event))
  }
  /** The system took the finger away: what was only tried is let go. */
  function cancel(): void {
    dragging.value = false
    options.onLetGo()
  }
  function nudge(tenths: number): void {
    options.onSet(tenthOfSpeed(options.nowMps(), display.units, tenths))
  }
  function key(event: KeyboardEvent): void {
    const tenths = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 }[event.key]
    if (tenths === undefined) return
    event.preventDefault()
    nudge(tenths)
  }
  const tenths = (mps: number): number => Number(speedFromMps(mps, display.units).toFixed(1))
  /** What the track is to who does not see it, and what moves it: for v-bind and v-on. */
  const slider = computed(() => ({
    role: 'slider',
    tabindex: 0,
    'aria-label': 'Speed slider',
    'aria-valuenow': tenths(options.nowMps()),
    'aria-valuetext': formatSpeed(options.nowMps(), display.units),
    'aria-valuemin': 0.1,
    'aria-valuemax': tenths(options.mostMps()),
    'data-test': 'speed-slider',
  }))
  const hands = { pointerdown: down, pointermove: move, pointerup: up, pointercancel: cancel, keydown: key }
  return { slider, hands, nudge }
}
