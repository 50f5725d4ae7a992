import type { FieldView } from "../state/fieldView.svelte";
import { steps } from "./cells";

const arrows: Record<string, number> = { ArrowUp: 0, ArrowRight: 2, ArrowDown: 4, ArrowLeft: 6 };

/** Does on a field what a key does there. */
export function pressFieldKey(event: KeyboardEvent, view: FieldView): void {
  const step = steps[arrows[event.key] ?? -1];
  if (step) {
    const place = { column: view.cursor.column + step[0], row: view.cursor.row + step[1] };
    if (event.altKey) void view.arrowTo(place);
    else view.moveTo(place, event.shiftKey);
  } else if (event.ctrlKey || event.metaKey) {
    if (event.key === "c") view.copy();
    else if (event.key === "v") void view.paste();
    else return;
  } else if (event.key === "Enter") void view.use();
  else if (event.key === "Delete" || event.key === "Backspace") void view.clear();
  else if (event.key === "+") void view.transpose(1);
  else if (event.key === "-" || event.key === "−") void view.transpose(-1);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
