import { counted } from "../counted";
import { gateLane } from "../chart/gate";
import type { EditJSON, LaneName, StepDetail } from "../api/types";
import type { ChartView } from "./chartView.svelte";

/** What was copied of a lane: values by how far they are behind the first step that was copied. */
interface Strip {
  lane: LaneName;
  values: { offset: number; value: number; detail?: StepDetail | undefined }[];
}

/** Steps that were copied. They go into any part, and those of one lane into any lane. */
export class Clipboard {
  #strips = $state.raw<Strip[]>([]);

  constructor(private readonly view: ChartView) {}

  get empty(): boolean {
    return this.#strips.length === 0;
  }

  /** Copies the steps in the box, or else the loop of the cursor's lane. */
  copy(): void {
    const { view } = this;
    const { session } = view;
    const { lane } = view.cursor;
    const { first, length } = session.loop(lane);
    const selected = view.boxed
      ? view.selected
      : { [lane]: Array.from({ length }, (_, i) => first + i) };
    const earliest = Math.min(...Object.values(selected).flat());
    this.#strips = Object.entries(selected).map(([name, steps]) => ({
      lane: name as LaneName,
      values: steps.map((step) => ({
        offset: step - earliest,
        value: view.values(name as LaneName)[step] ?? 0,
        detail: name === gateLane ? session.part.details?.[step] : undefined,
      })),
    }));
    const count = this.#strips.reduce((sum, strip) => sum + strip.values.length, 0);
    session.notices.add(`Copied ${counted(count, "step")}.`);
  }

  /** Writes what was copied from the cursor's step on, as one edit. What would lie beyond step 64 is left out. */
  async paste(): Promise<void> {
    const { session, cursor } = this.view;
    const [only] = this.#strips;
    const edits: EditJSON[] = [];
    for (const strip of this.#strips) {
      const lane = this.#strips.length === 1 && only ? cursor.lane : strip.lane;
      const { least, most } = session.spec(lane);
      const placed = strip.values
        .map((v) => ({ ...v, step: this.view.stepOf(cursor.lane) + v.offset }))
        .filter((v) => v.step < 64);
      const steps = placed.map(({ step, value }) => ({
        step,
        value: Math.min(most, Math.max(least, value)),
      }));
      edits.push({ setSteps: { ...session.address, lane, steps } });
      if (lane !== gateLane || strip.lane !== gateLane) continue;
      for (const { step, detail } of placed) {
        if (detail || session.part.details?.[step]) {
          edits.push({ setDetail: { ...session.address, step, detail: detail ?? {} } });
        }
      }
    }
    await session.editAll("paste", edits);
  }
}
