import type { Lane, LaneName, LaneSpec } from "../api/types";
import type { ChartView } from "../state/chartView.svelte";
import { Gate } from "./gate";

/** Handles a key that is pressed on a lane's strip; returns whether the key meant something. */
export function pressKey(
  event: KeyboardEvent,
  view: ChartView,
  spec: LaneSpec,
  loop: Lane,
): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const name = spec.name as LaneName;
  const { first, length } = loop;
  const step = view.stepOf(name);
  const value = view.values(name)[step] ?? 0;
  const big = name === "pitch" ? view.degreesPerOctave : 10;
  const by = event.shiftKey ? big : 1;

  const go = (to: number) => view.moveCursor(name, first + ((to - first + length) % length));
  const set = (to: number) => {
    const bounded = Math.min(spec.most, Math.max(spec.least, to));
    if (bounded === value) return;
    void view.write(name, { [step]: bounded });
  };

  switch (event.key) {
    case "ArrowLeft":
      go(step - 1);
      return true;
    case "ArrowRight":
      go(step + 1);
      return true;
    case "Home":
      go(first);
      return true;
    case "End":
      go(first + length - 1);
      return true;
    case "ArrowUp":
      set(value + by);
      return true;
    case "ArrowDown":
      set(value - by);
      return true;
    case "Delete":
    case "Backspace":
      set(spec.default);
      return true;
    case "Enter":
      if (name !== "gate") return false;
      set(value === Gate.on ? Gate.off : Gate.on);
      return true;
    case "t":
      if (name !== "gate") return false;
      set(value === Gate.tie ? Gate.off : Gate.tie);
      return true;
  }
  return false;
}
