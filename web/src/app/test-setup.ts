// jsdom has no ResizeObserver; Vuetify asks for one.
class NoResizeObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
globalThis.ResizeObserver ??= NoResizeObserver as unknown as typeof ResizeObserver
// Nor a visual viewport, which overlays are placed by.
globalThis.visualViewport ??= Object.assign(new EventTarget(), {
  offsetLeft: 0,
  offsetTop: 0,
  width: 1024,
  height: 768,
}) as unknown as VisualViewport
