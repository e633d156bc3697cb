const PATIENCE_MS = 500

/** Resolves when what was just changed is on the screen, or, in a page that nobody sees, soon. */
export function painted(): Promise<void> {
  return new Promise((resolve) => {
    const late = setTimeout(resolve, PATIENCE_MS)
    requestAnimationFrame(() =>
      setTimeout(() => {
        clearTimeout(late)
        resolve()
      }),
    )
  })
}
