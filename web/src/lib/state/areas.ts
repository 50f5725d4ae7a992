/** What takes the keyboard. */
const takesKeys =
  "a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), [tabindex='0']";

/** Where the keyboard comes to first in an area, if there is such a thing; else to the first that takes it. */
const first =
  "[role=tab][aria-selected=true], [data-lane] [role=slider], [role=application], [role=listbox]";

/** By areas, where the keyboard was when it left them. */
const left = new WeakMap<Element, HTMLElement>();

/** Takes the keyboard on to the next area of the screen, or to the one before: to where it was there. */
export function stepArea(by: 1 | -1): void {
  const areas = [...document.querySelectorAll("[data-area]")].filter(
    (area) => area.checkVisibility() && area.querySelector(takesKeys),
  );
  const { activeElement } = document;
  // From nowhere it goes on as from the top bar.
  const at = Math.max(
    0,
    areas.findIndex((area) => area.contains(activeElement)),
  );
  const from = areas[at];
  if (from?.contains(activeElement) && activeElement instanceof HTMLElement) {
    left.set(from, activeElement);
  }
  const next = areas[(at + by + areas.length) % areas.length];
  if (next) entryOf(next)?.focus();
}

function entryOf(area: Element): HTMLElement | null {
  const before = left.get(area);
  if (before && area.contains(before) && before.matches(takesKeys) && before.checkVisibility()) {
    return before;
  }
  return area.querySelector<HTMLElement>(first) ?? area.querySelector<HTMLElement>(takesKeys);
}
