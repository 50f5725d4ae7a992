/** By keys, how far they go among the tabs of a list; the ends are beyond all of them. */
const steps: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  Home: -Infinity,
  End: Infinity,
};

/**
 * Has the arrow keys, Home and End open the tabs of a list, as the ARIA Authoring Practices have it ("Tabs", with
 * automatic activation): round from the last to the first. Only the open tab is to be a stop of the Tab key.
 */
export function tabKeys(list: Element): () => void {
  function onkeydown(event: Event): void {
    const { key } = event as KeyboardEvent;
    const by = steps[key];
    const tabs = [...list.querySelectorAll<HTMLElement>("[role=tab]")];
    const at = tabs.indexOf(event.target as HTMLElement);
    if (by === undefined || at < 0) return;
    event.preventDefault();
    event.stopPropagation();
    const to = Number.isFinite(by)
      ? (at + by + tabs.length) % tabs.length
      : by > 0
        ? tabs.length - 1
        : 0;
    tabs[to]?.click();
    tabs[to]?.focus();
  }
  list.addEventListener("keydown", onkeydown);
  return () => list.removeEventListener("keydown", onkeydown);
}
