// One key an act, for a laptop or a wireless keypad.

export interface KeyAct {
  key: string
  shown?: string
  act: string
  does: string
}

export const KEYS: KeyAct[] = [
  { key: '1', shown: '1–8', act: 'rod', does: 'choose a rod, port to starboard' },
  { key: 'h', act: 'hit', does: 'hit' },
  { key: 'f', act: 'hooked', does: 'fish on' },
  { key: 'l', act: 'landed', does: 'landed' },
  { key: 'o', act: 'lost', does: 'lost' },
  { key: 'r', act: 'reset', does: 'reset to its number' },
  { key: 'b', act: 'bait', does: 'bait checked' },
  { key: 'i', act: 'in', does: 'line in' },
  { key: 'd', act: 'depth', does: 'type a depth' },
  { key: '-', shown: '−', act: 'slower', does: 'slower by 0.1' },
  { key: '+', act: 'faster', does: 'faster by 0.1' },
  { key: 'm', act: 'mark', does: 'note a mark' },
  { key: 't', act: 'temperature', does: 'surface temperature' },
  { key: 's', act: 'bottom', does: 'depth of the bottom' },
  { key: 'e', act: 'gps', does: 'speed by GPS' },
  { key: 'c', act: 'current', does: 'the current' },
  { key: 'a', act: 'wind', does: 'the wind' },
  { key: 'p', act: 'place', does: 'where the boat is' },
  { key: 'w', act: 'sheet', does: 'two speeds, tip, bottom' },
  { key: 'v', act: 'above', does: 'from the side, from above' },
  { key: 'g', act: 'take', does: 'do the next move' },
  { key: 'n', act: 'refuse', does: 'next move: not now' },
  { key: 'u', act: 'undo', does: 'undo' },
  { key: '?', act: 'help', does: 'this list' },
]

/** The act of a key press; null when it belongs to a field or to nothing here. */
export function keyAct(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>, inField: boolean): KeyAct | null {
  if (inField || event.ctrlKey || event.metaKey || event.altKey) return null
  if (/^[1-8]$/.test(event.key)) return KEYS[0]!
  const key = event.key === '=' ? '+' : event.key.length === 1 ? event.key.toLowerCase() : event.key
  return KEYS.find((candidate) => candidate.act !== 'rod' && candidate.key === key) ?? null
}
