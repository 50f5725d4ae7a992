/** What takes the keyboard. */
const takesKeys =
  "a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), [tabindex='0']";

/** Where the keyboard comes to first in an area, if there is such a thing; else to the first that takes it. */
const first =
  "[role=tab][aria-selected=true], [data-lane] [role=slider], [role=application], [role=listbox]";

/** The area in which the keyboard was last: a field hands it back once it is done with. */
let last: Element | null = null;

/** By areas, where in them it was last. */
const places = new WeakMap<Element, HTMLElement>();

/** Remembers from now on in which area the keyboard is, and where. Returns how to stop. */
export function rememberAreas(page: Document): () => void {
  function onfocusin({ target }: FocusEvent): void {
    const area = target instanceof HTMLElement ? target.closest("[data-area]") : null;
    if (!area) return;
    last = area;
    places.set(area, target as HTMLElement);
  }
  page.addEventListener("focusin", onfocusin);
  return () => page.removeEventListener("focusin", onfocusin);
}

/**
 * Takes the keyboard on to the next area of the screen, or to the one before, to where it was last there. From one
 * that is gone it goes on as from the top bar.
 */
export function stepArea(by: 1 | -1): void {
  const areas = [...document.querySelectorAll("[data-area]")].filter(
    (area) => area.checkVisibility() && area.querySelector(takesKeys),
  );
  const at = Math.max(0, last ? areas.indexOf(last) : 0);
  const next = areas[(at + by + areas.length) % areas.length];
  if (next) entryOf(next)?.focus();
}

function entryOf(area: Element): HTMLElement | null {
  const before = places.get(area);
  if (before && area.contains(before) && before.matches(takesKeys) && before.checkVisibility()) {
    return before;
  }
  return area.querySelector<HTMLElement>(first) ?? area.querySelector<HTMLElement>(takesKeys);
}
