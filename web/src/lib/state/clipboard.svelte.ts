import { counted } from "../counted";
import { readCondition, writeCondition } from "../chart/conditions";
import { gateLane } from "../chart/gate";
import type { EditJSON, LaneName, StepDetail, StepOwn } from "../api/types";
import type { ChartView } from "./chartView.svelte";

/** A step that was copied, by how far it is behind the first that was. */
interface Copied {
  offset: number;
  value: number;
  own: StepOwn | undefined;
  detail: StepDetail | undefined;
}

/** What was copied of a lane. */
interface Strip {
  lane: LaneName;
  values: Copied[];
}

/** Steps that were copied, with all that they have. They go into any part, and those of one lane into any lane. */
export class Clipboard {
  #strips = $state.raw<Strip[]>([]);
  /** The project from which they are. */
  #document = 0;

  constructor(private readonly view: ChartView) {}

  get empty(): boolean {
    return this.#strips.length === 0;
  }

  /** Copies the steps in the box, or else the loops of the lanes that the cursor's lane is copied with. */
  copy(): void {
    const { view } = this;
    const { session } = view;
    const { lane } = view.cursor;
    const { first, length } = session.loop(lane);
    const loop = Array.from({ length }, (_, i) => first + i);
    const selected = view.boxed
      ? view.selected
      : Object.fromEntries(view.actedOn(lane).map((name) => [name, loop]));
    const earliest = Math.min(...Object.values(selected).flat());
    this.#document = session.document;
    this.#strips = Object.entries(selected).map(([key, steps]) => {
      const name = key as LaneName;
      return {
        lane: name,
        values: steps.map((step) => ({
          offset: step - earliest,
          value: view.values(name)[step] ?? 0,
          own: session.lane(name).own?.[step],
          detail: name === gateLane ? session.part.details?.[step] : undefined,
        })),
      };
    });
    const count = this.#strips.reduce((sum, strip) => sum + strip.values.length, 0);
    const lanes = this.#strips.length > 1 ? ` of ${counted(this.#strips.length, "lane")}` : "";
    session.notices.add(`Copied ${counted(count, "step")}${lanes}.`);
  }

  /** Writes what was copied from the cursor's step on, as one edit. What would lie beyond step 64 is left out. */
  async paste(): Promise<void> {
    const { session, cursor } = this.view;
    const from = this.view.stepOf(cursor.lane);
    const alone = this.#strips.length === 1;
    const edits = this.#strips.flatMap((strip) => {
      const placed = strip.values
        .map((copied) => ({ ...copied, step: from + copied.offset }))
        .filter(({ step }) => step < 64);
      return this.#write(strip.lane, alone ? cursor.lane : strip.lane, placed);
    });
    await session.editAll("paste", edits);
  }

  /** Writes steps that were copied of a lane into one. */
  #write(from: LaneName, lane: LaneName, placed: (Copied & { step: number })[]): EditJSON[] {
    const { session } = this.view;
    const { least, most } = session.spec(lane);
    const bounded = (value: number) => Math.min(most, Math.max(least, value));
    const steps = placed.map(({ step, value }) => ({ step, value: bounded(value) }));
    const edits: EditJSON[] = [{ setSteps: { ...session.address, lane, steps } }];
    for (const { step, detail, own } of placed) {
      if (lane === gateLane && from === gateLane && (detail ?? session.part.details?.[step])) {
        edits.push({ setDetail: { ...session.address, step, detail: this.#detail(detail) } });
      }
      const kept = from === lane ? own : own?.spread && { spread: own.spread };
      if (lane !== gateLane && (kept ?? session.lane(lane).own?.[step])) {
        edits.push({ setOwn: { ...session.address, lane, step, own: kept ?? {} } });
      }
    }
    return edits;
  }

  /** What was special of a gate step, as the open project can have it. */
  #detail(detail: StepDetail | undefined): StepDetail {
    if (!detail?.condition || this.#document === this.view.session.document) return detail ?? {};
    const { lists, notices } = this.view.session;
    const sentence = readCondition(detail.condition, lists.terms);
    const terms = sentence.terms.filter(({ of }) => of === undefined);
    if (terms.length < sentence.terms.length)
      notices.add(
        "Conditions about other tracks, sections or scenes were left out, as this project has others.",
      );
    return { ...detail, condition: writeCondition({ ...sentence, terms }) };
  }
}
