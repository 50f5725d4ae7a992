/**
 * Lets only the pointer that an element has captured reach its handlers, so that a second finger, or a hand that lies on
 * the screen, neither takes part in what the first one draws nor ends it.
 */
export function oneFinger(element: Element): () => void {
  let captured: number | undefined;
  function listener(event: Event): void {
    const { pointerId: id, type } = event as PointerEvent;
    if (captured !== undefined && id !== captured && element.hasPointerCapture(captured)) {
      event.stopImmediatePropagation();
    } else if (type === "pointerdown") {
      captured = id;
    }
  }
  const types = ["pointerdown", "pointermove", "pointerup", "pointercancel"];
  for (const type of types) element.addEventListener(type, listener, true);
  return () => {
    for (const type of types) element.removeEventListener(type, listener, true);
  };
}
