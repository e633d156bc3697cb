// What a person typed, as a number; what is none is said, not guessed.

/** Parse a number with point or comma; null when it is none. */
export function parseNumber(text: string): number | null {
  const trimmed = text.trim().replace(',', '.')
  if (!/^[+-]?(?:\d+(?:\.\d*)?|\.\d+)$/.test(trimmed)) return null
  return Number(trimmed)
}
