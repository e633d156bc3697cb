// Points typed row by row: whole rows go out, half-typed ones stay where they are typed.
import { ref, watch, type Ref } from 'vue'

interface PointRows<Row> {
  rows: Ref<Row[]>
  send: () => void
  drop: (index: number) => void
}

export function usePointRows<Point, Row>(options: {
  points: () => readonly Point[]
  toRow: (point: Point) => Row
  /** The row as a point; null while it is half typed. */
  toPoint: (row: Row) => Point | null
  emit: (points: Point[]) => void
}): PointRows<Row> {
  const rows = ref([]) as Ref<Row[]>
  let sent = ''
  watch(
    () => JSON.stringify(options.points()),
    (now) => {
      if (now !== sent) rows.value = options.points().map(options.toRow)
    },
    { immediate: true },
  )
  function send(): void {
    const points = rows.value.flatMap((row): Point[] => {
      const point = options.toPoint(row)
      return point === null ? [] : [point]
    })
    sent = JSON.stringify(points)
    options.emit(points)
  }
  function drop(index: number): void {
    rows.value.splice(index, 1)
    send()
  }
  return { rows, send, drop }
}
