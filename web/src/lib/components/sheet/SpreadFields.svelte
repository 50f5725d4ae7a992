<!-- @component What chance adds to a lane's values as they are played, on the drawn density. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Lane, LaneName, Spread } from "../../api/types";
  import { shortText } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import DensityPicture from "./DensityPicture.svelte";

  let { name, lane }: { name: LaneName; lane: Lane } = $props();

  const session = getSession();
  const view = getChartView();
  const spec = $derived(session.spec(name));
  /** How far a new spread reaches either way. */
  const reach = $derived(Math.max(1, Math.round((spec.most - spec.least) / 8)));
  const spread: Spread = $derived(
    lane.spread ?? { chance: 100, depth: 0, lowest: -reach, highest: reach, lean: 0, grain: 1 },
  );
  /** How written values read and are typed where they are degrees: as the notes that they are. */
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
  const off = $derived(spread.depth === 0 || spread.chance === 0);

  function set(change: Partial<Spread>): Promise<void> {
    return session.setLane(name, { spread: { ...spread, ...change } });
  }
</script>

<button
  class="control my-1 w-full"
  aria-pressed={!off}
  data-help="Spread: chance adds to the value as it is played; what is written stays."
  onclick={() => set(off ? { depth: 100, chance: spread.chance || 100 } : { depth: 0 })}
  >spread</button
>
{#if !off}
  <DensityPicture {name} {spread} {widest} {set} />
  <NumberRow
    label="min"
    name="{name} spread lowest"
    help="The lowest value that is added; below 0 it takes away."
    value={spread.lowest}
    min={-widest}
    max={spread.highest}
    usual={-reach}
    commit={(lowest) => set({ lowest })}
  />
  <NumberRow
    label="max"
    name="{name} spread highest"
    help="The highest value that is added."
    value={spread.highest}
    min={spread.lowest}
    max={widest}
    usual={reach}
    commit={(highest) => set({ highest })}
  />
  <ChoiceRow
    label="touches"
    name="{name} spread touches"
    help="To which written values anything is added: to all, to those of a range, or to all others, as to leave a pedal note alone."
    value={spread.touches ?? ""}
    choices={[
      { value: "", label: "all values" },
      { value: "within", label: "values from … to" },
      { value: "outside", label: "all but from … to" },
    ]}
    select={(touches) => set({ touches: touches as Spread["touches"] & string })}
  />
  {#if spread.touches}
    <NumberRow
      label="from"
      name="{name} spread from"
      help="The lowest written value of the range."
      {...reading}
      value={spread.from ?? 0}
      min={spec.least}
      max={spread.to ?? 0}
      usual={spec.least}
      commit={(from) => set({ from })}
    />
    <NumberRow
      label="to"
      name="{name} spread to"
      help="The highest written value of the range."
      {...reading}
      value={spread.to ?? 0}
      min={spread.from ?? 0}
      max={spec.most}
      usual={spec.most}
      commit={(to) => set({ to })}
    />
  {/if}
  <NumberRow
    label="lean"
    name="{name} spread lean"
    help="Where in the range it tends to land: −100 the lowest, 0 anywhere, 100 the highest."
    value={spread.lean}
    {...bounds.Spread.lean}
    usual={0}
    commit={(lean) => set({ lean })}
  />
  <NumberRow
    label="applies to"
    name="{name} spread chance"
    help="How often anything is added at all."
    unit="%"
    value={spread.chance}
    {...bounds.Spread.chance}
    min={1}
    usual={100}
    commit={(chance) => set({ chance })}
  />
  <NumberRow
    label="depth"
    name="{name} spread depth"
    help="Scales the whole spread."
    unit="%"
    value={spread.depth}
    {...bounds.Spread.depth}
    min={1}
    usual={100}
    commit={(depth) => set({ depth })}
  />
  <NumberRow
    label="step size"
    name="{name} spread step size"
    help="The distance between the numbers that can be added."
    value={spread.grain}
    {...bounds.Spread.grain}
    usual={1}
    commit={(grain) => set({ grain })}
  />
{/if}
