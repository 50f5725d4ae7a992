/**
 * Has the arrow keys open a list from which a choice does something at once, as adding what is chosen. Left to
 * themselves they would choose the next entry on some systems, and open the list on others. A browser that cannot open
 * it is left as it is.
 */
export function openByArrows(list: HTMLSelectElement): (() => void) | undefined {
  if (!("showPicker" in HTMLSelectElement.prototype)) return undefined;
  function onkeydown(event: KeyboardEvent): void {
    if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
    event.preventDefault();
    list.showPicker();
  }
  list.addEventListener("keydown", onkeydown);
  return () => list.removeEventListener("keydown", onkeydown);
}
