// What a line was doing at a bite, in words: told on Fish, read in Review.
export const DOING = [
  { value: 'steady', title: 'Running steady' },
  { value: 'dropping', title: 'Dropping' },
  { value: 'rising', title: 'Rising' },
  { value: 'popped', title: 'Out of the clip' },
  { value: 'inside_turn', title: 'Inside of a turn' },
  { value: 'outside_turn', title: 'Outside of a turn' },
  { value: 'surging', title: 'Speeding up' },
  { value: 'easing', title: 'Slowing down' },
  { value: 'long_lined', title: 'While another was wound in' },
] as const
