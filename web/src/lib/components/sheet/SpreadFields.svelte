<!-- @component What chance adds to the values of a lane, or of steps, as they are played, on the drawn density. Several spreads show their ranges. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { LaneName, Spread } from "../../api/types";
  import { shortText, signed } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import DensityPicture from "./DensityPicture.svelte";
  import SpreadTouches from "./SpreadTouches.svelte";

  interface Props {
    name: LaneName;
    /** One, or one for each step. */
    spreads: readonly Spread[];
    /** Names the fields: that of the lane, or of steps. */
    of: string;
    /** A step at which the first of them is in force. */
    step: number;
    set: (change: (before: Spread) => Partial<Spread>) => Promise<void>;
  }
  let { name, spreads, of, step, set }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const spec = $derived(session.spec(name));
  const spread: Spread = $derived(
    spreads[0] ?? { chance: 100, depth: 100, lowest: 0, highest: 0, lean: 0, grain: 1 },
  );
  /** How values read and are typed where they are degrees: as the notes that they are. */
  const reading = $derived(
    spec.reads === "degree"
      ? {
          show: (value: number) => shortText(spec, value, view),
          read: (text: string) => session.notes.degreeOf(text, view.degrees),
          width: "5ch",
        }
      : {},
  );
  const widest = $derived(spec.most - spec.least);
  const value = $derived(view.values(name)[step] ?? spec.default);
  /** What the ends count from: with limits from nothing, else from the value. */
  const from = $derived(spread.limits ? value : 0);
  const ends = $derived(
    spread.limits
      ? { least: spec.least, most: spec.most, reading }
      : { least: -widest, most: widest, reading: {} },
  );

  type Numbered = "lowest" | "highest" | "from" | "to" | "lean" | "chance" | "depth" | "grain";

  /** The range of a number that differs, and how to move all of them. */
  function many(key: Numbered, show: (value: number) => string = String) {
    const values = spreads.map((one) => one[key] ?? 0);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    if (least === most) return undefined;
    return {
      text: `${show(least)}–${show(most)}`,
      shift: (by: number) => set((before) => ({ [key]: (before[key] ?? 0) + by })),
    };
  }

  const give = (change: Partial<Spread>): Promise<void> => set(() => change);

  /** Takes the ends as limits of the result, or as what is added; for this step they stay where they are. */
  function setLimits(limits: boolean): Promise<void> {
    const within = (value: number, { least, most }: { least: number; most: number }) =>
      Math.min(most, Math.max(least, value));
    return set(({ lowest, highest }) =>
      limits
        ? { limits, lowest: within(lowest + value, spec), highest: within(highest + value, spec) }
        : { limits, lowest: lowest - value, highest: highest - value },
    );
  }

  const ended = (change: Partial<Spread>): Promise<void> =>
    give({
      ...change,
      ...(change.lowest !== undefined && { lowest: change.lowest + from }),
      ...(change.highest !== undefined && { highest: change.highest + from }),
    });
</script>

<DensityPicture
  {name}
  {step}
  spread={{ ...spread, lowest: spread.lowest - from, highest: spread.highest - from }}
  {widest}
  label={(added) =>
    spread.limits
      ? shortText(spec, Math.min(spec.most, Math.max(spec.least, value + added)), view)
      : signed(added)}
  set={ended}
/>
<ChoiceRow
  label="min, max"
  name="{of} spread bounds"
  help="What min and max bound: what is added, or the result, whatever is written."
  value={spread.limits ? "limits" : ""}
  choices={[
    { value: "", label: "of what is added" },
    { value: "limits", label: "of the result" },
  ]}
  select={(bound) => setLimits(bound === "limits")}
/>
<NumberRow
  label="min"
  name="{of} spread lowest"
  help={spread.limits
    ? "The lowest value that can come out."
    : "The lowest value that is added; below 0 it takes away."}
  {...ends.reading}
  value={spread.lowest}
  min={ends.least}
  max={spread.highest}
  many={many("lowest")}
  commit={(lowest) => give({ lowest })}
/>
<NumberRow
  label="max"
  name="{of} spread highest"
  help={spread.limits ? "The highest value that can come out." : "The highest value that is added."}
  {...ends.reading}
  value={spread.highest}
  min={spread.lowest}
  max={ends.most}
  many={many("highest")}
  commit={(highest) => give({ highest })}
/>
<SpreadTouches {spec} {spread} {of} {reading} {many} set={give} />
<NumberRow
  label="lean"
  name="{of} spread lean"
  help="Where in the range it tends to land: −100 the lowest, 0 anywhere, 100 the highest."
  value={spread.lean}
  {...bounds.Spread.lean}
  usual={0}
  many={many("lean")}
  commit={(lean) => give({ lean })}
/>
<NumberRow
  label="applies to"
  name="{of} spread chance"
  help="How often anything is added at all."
  unit="%"
  value={spread.chance}
  {...bounds.Spread.chance}
  min={1}
  usual={100}
  many={many("chance")}
  commit={(chance) => give({ chance })}
/>
<NumberRow
  label="depth"
  name="{of} spread depth"
  help="Scales the whole spread."
  unit="%"
  value={spread.depth}
  {...bounds.Spread.depth}
  min={1}
  usual={100}
  many={many("depth")}
  commit={(depth) => give({ depth })}
/>
<NumberRow
  label="step size"
  name="{of} spread step size"
  help="The distance between the numbers that can be added."
  value={spread.grain}
  {...bounds.Spread.grain}
  usual={1}
  many={many("grain")}
  commit={(grain) => give({ grain })}
/>
