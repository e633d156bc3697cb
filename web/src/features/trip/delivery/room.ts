// How much room this browser leaves for what waits here.

/** A day of taps, a chart and a core take about this much, bytes. */
export const ENOUGH = 30_000_000

/** Whether room runs out; where the browser does not say, it does not. */
export async function isScarce(storage: Pick<StorageManager, 'estimate'> | undefined = navigator.storage): Promise<boolean> {
  const told = await storage?.estimate?.().catch(() => null)
  return told?.quota != null && told.usage != null && told.quota - told.usage < ENOUGH
}
