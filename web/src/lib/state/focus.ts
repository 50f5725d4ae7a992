/** What is typed into: its own keys are its own, until Enter, Escape or a choice hands the keyboard back. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLSelectElement ||
    target instanceof HTMLTextAreaElement
  );
}

/** Keys that step through a closed list: each changes it, and more may follow. */
const steppingKey = /^(Arrow|Page|Home|End|.$)/;

/**
 * Hands the keyboard back to the instrument once a field outside the dialogs is done with: after Enter or Escape, and
 * after a tick, and after a choice in a list unless that was stepped to by a key. Returns how to stop.
 */
export function handKeysBack(page: Document): () => void {
  let pressed: { key: string; target: EventTarget | null } | undefined;

  function leave(target: EventTarget | null): void {
    if (target instanceof HTMLElement && isTyping(target) && !target.closest("dialog")) {
      target.blur();
    }
  }

  const stop = new AbortController();
  const options = { capture: true, signal: stop.signal };
  page.addEventListener("pointerdown", () => (pressed = undefined), options);
  page.addEventListener(
    "keydown",
    ({ key, target }) => {
      pressed = { key, target };
    },
    options,
  );
  page.addEventListener(
    "keyup",
    ({ key, target }) => {
      // A key that went down elsewhere has only brought the keyboard here.
      if ((key === "Enter" || key === "Escape") && pressed?.target === target) leave(target);
    },
    options,
  );
  page.addEventListener(
    "change",
    ({ target }) => {
      const stepped = pressed?.target === target && steppingKey.test(pressed?.key ?? "");
      const ticked = target instanceof HTMLInputElement && target.type === "checkbox";
      if (ticked || (target instanceof HTMLSelectElement && !stepped)) leave(target);
    },
    options,
  );
  return () => stop.abort();
}
