import type { LaneName, Recipe, RollRequest } from "../api/types";
import type { ChartView } from "./chartView.svelte";
import { randomLuck } from "./luck";

/** How a lane is rolled. */
export type RollSettings = Pick<RollRequest, "lowest" | "highest" | "density" | "lean">;

/** How far rolls go and between what, for each lane that was rolled; and the number from which they follow. */
export class Roller {
  scope = $state<RollRequest["scope"]>("lane");
  luck = $state(randomLuck());
  #settings = $state.raw<Partial<Record<LaneName, RollSettings>>>({});

  constructor(private readonly view: ChartView) {}

  /** How the lane of the cursor is rolled. */
  get settings(): RollSettings {
    return this.#settings[this.view.cursor.lane] ?? this.#usual();
  }

  set(change: Partial<RollSettings>): void {
    const settings = { ...this.settings, ...change };
    this.#settings = { ...this.#settings, [this.view.cursor.lane]: settings };
  }

  /** The range that the loop now uses, or a good part of the lane's if that is a single value. */
  #usual(): RollSettings {
    const { session, cursor } = this.view;
    const spec = session.spec(cursor.lane);
    const { first, length } = session.loop(cursor.lane);
    const used = session.lane(cursor.lane).steps.slice(first, first + length);
    const [lowest, highest] = [Math.min(...used), Math.max(...used)];
    const all = { lowest: spec.least, highest: spec.rollMost };
    return {
      ...(lowest < highest ? { lowest, highest } : all),
      density: spec.rollDensity,
      lean: 0,
    };
  }

  /** Rolls from a number: the selected steps of the cursor's lane or its loop, or all that the scope takes in. */
  roll(luck: number): Promise<void> {
    const { session, cursor, selected } = this.view;
    this.luck = luck;
    const steps = this.scope === "lane" ? selected[cursor.lane] : undefined;
    return session.roll({
      ...session.address,
      lane: cursor.lane,
      scope: this.scope,
      luck,
      ...this.settings,
      ...(steps ? { steps } : {}),
    });
  }

  /** Rolls the lane of a recipe by it. */
  use({ lane, lowest, highest, density, lean }: Recipe): Promise<void> {
    this.view.moveCursor(lane as LaneName, this.view.cursor.step);
    this.scope = "lane";
    this.set({ lowest, highest, density, lean });
    return this.roll(randomLuck());
  }
}
