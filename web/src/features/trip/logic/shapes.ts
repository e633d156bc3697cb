// A shape for each rod, so that no state hangs on colour alone. Unit radius around the origin.

const polygon = (corners: number, turn: number): string =>
  Array.from({ length: corners }, (_, i) => {
    const angle = turn + (2 * Math.PI * i) / corners
    return `${(Math.sin(angle) * 1).toFixed(3)},${(-Math.cos(angle)).toFixed(3)}`
  }).join(' ')

const star = Array.from({ length: 10 }, (_, i) => {
  const radius = i % 2 === 0 ? 1.1 : 0.5
  const angle = (Math.PI * i) / 5
  return `${(Math.sin(angle) * radius).toFixed(3)},${(-Math.cos(angle) * radius).toFixed(3)}`
}).join(' ')

const cross = '-0.35,-1 0.35,-1 0.35,-0.35 1,-0.35 1,0.35 0.35,0.35 0.35,1 -0.35,1 -0.35,0.35 -1,0.35 -1,-0.35 -0.35,-0.35'

export const SHAPE_POINTS: Record<string, string> = {
  triangle: polygon(3, 0),
  square: polygon(4, Math.PI / 4),
  diamond: polygon(4, 0),
  pentagon: polygon(5, 0),
  hexagon: polygon(6, 0),
  star,
  cross,
}

export function rodColour(index: number): string {
  return `var(--rod-${(index % 8) + 1})`
}
