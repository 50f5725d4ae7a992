/** What takes the keyboard and leaves the keys that hold everywhere alone, as fields and lists do not. */
const pressed = "a[href], button:not(:disabled)";

/** What takes the keyboard. */
const takesKeys = `${pressed}, input:not(:disabled), select:not(:disabled), [tabindex='0']`;

/** Where the keyboard comes to first in an area, if there is such a thing; else to what is pressed, or to anything. */
const first =
  "[role=tab][aria-selected=true], [data-lane] [role=slider], [role=application], [role=listbox]";

/** What can have the keyboard: the roll of a take and the grid of a field are pictures. */
type Place = HTMLElement | SVGElement;

/** The area in which the keyboard was last: a field hands it back once it is done with. */
let last: Element | null = null;

/** By areas, where in them it was last. */
const places = new WeakMap<Element, Place>();

/** Remembers from now on in which area the keyboard is, and where. Returns how to stop. */
export function rememberAreas(page: Document): () => void {
  function onfocusin({ target }: FocusEvent): void {
    const place = target as Place;
    const area = place.closest("[data-area]");
    if (!area) return;
    last = area;
    places.set(area, place);
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

function entryOf(area: Element): Place | null {
  const before = places.get(area);
  if (before && area.contains(before) && before.matches(takesKeys) && before.checkVisibility()) {
    return before;
  }
  for (const wanted of [first, pressed, takesKeys]) {
    const found = area.querySelector<Place>(wanted);
    if (found) return found;
  }
  return null;
}
