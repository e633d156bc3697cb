// The outline of a small open boat from above, bow up: so long and, as such boats are, about 0.36 of that wide; a
// kayak a quarter.

const KAYAK_M = 3.8

/** Its beam, in whatever the length is in. */
export function beamOf(length: number, lengthM: number): number {
  return length * (lengthM < KAYAK_M ? 0.25 : 0.36)
}

/** A path with the transom's middle at (x, y), bow up. */
export function hullPath(length: number, x: number, y: number, beam = 0.36 * length): string {
  const half = beam / 2
  const bow = y - length
  const at = (side: number, up: number): string => `${(x + side).toFixed(1)} ${(y - up).toFixed(1)}`
  return [
    `M${at(-half * 0.86, 0)}`,
    `C${at(-half * 1.06, length * 0.3)} ${at(-half * 1.06, length * 0.72)} ${x.toFixed(1)} ${bow.toFixed(1)}`,
    `C${at(half * 1.06, length * 0.72)} ${at(half * 1.06, length * 0.3)} ${at(half * 0.86, 0)}`,
    'Z',
  ].join('')
}
