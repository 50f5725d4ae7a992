import type { Lane, LaneSpec } from "../api/types";
import type { ChartView } from "../state/chartView.svelte";
import { Gate } from "./gate";

/** Handles a key that is pressed on a lane's strip; returns whether the key meant something. */
export function pressKey(
  event: KeyboardEvent,
  view: ChartView,
  spec: LaneSpec,
  loop: Lane,
): boolean {
  const lanes = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (event.altKey && lanes) {
    view.focusBeside(spec.name, lanes);
    return true;
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const { name, leads } = spec;
  const { first, length } = loop;
  const step = view.stepOf(name);
  const value = view.values(name)[step] ?? 0;
  const big = spec.reads === "degree" ? view.degreesPerOctave : 10;
  const by = event.shiftKey ? big : 1;

  const wrapped = (to: number) => first + ((to - first + length) % length);
  const go = (to: number) => {
    if (event.shiftKey) view.selectTo(name, wrapped(to));
    else view.moveCursor(name, wrapped(to));
  };
  const many = view.stepsOf(name).length > 1 || view.boxed;
  const set = (to: number) => {
    if (to === value && !many) return;
    const steps = many ? view.stepsOf(name) : [step];
    void view.write(name, Object.fromEntries(steps.map((s) => [s, to])));
  };
  const raise = (by: number) =>
    view.session.run.press(() => {
      if (many) void view.raise(by);
      else set(Math.min(spec.most, Math.max(spec.least, value + by)));
    });

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
      raise(by);
      return true;
    case "ArrowDown":
      raise(-by);
      return true;
    case "Delete":
    case "Backspace":
      set(spec.default);
      return true;
    case "Enter":
      if (!leads) return false;
      set(value === Gate.on ? Gate.off : Gate.on);
      return true;
    case "[":
    case "]": {
      const steps = view.selected[name] ?? [];
      const by = event.key === "[" ? -1 : 1;
      void view.session.editAll(
        "rotate steps",
        view.actedOn(name).map((lane) => ({
          reshape: { ...view.session.address, lane, do: "rotate", by, steps },
        })),
      );
      return true;
    }
    case "o":
      if (leads) return false;
      void view.session.setLane(name, { linked: !view.session.lane(name).linked });
      return true;
    case "k":
      void view.toggleLocks();
      return true;
    case "+":
    case "-":
      if (!spec.notes) return false;
      void view.addOrRemoveNote(name, step, event.key === "+");
      return true;
    case "t":
      if (!leads) return false;
      set(value === Gate.tie ? Gate.off : Gate.tie);
      return true;
  }
  return false;
}
