<!-- @component A table from which the value of a lane, or of steps, is drawn, as bars that show the true percentages. -->
<script lang="ts">
  import type { LaneName, Weight } from "../../api/types";
  import { shortText } from "../../chart/values";
  import { reweighed, type Reweighing } from "../../chart/weights";
  import { getChartView, getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";
  import WeightLine from "./WeightLine.svelte";

  interface Props {
    name: LaneName;
    weights: readonly Weight[];
    /** What is in force where there are no weights: the steps, or the lane. */
    otherwise: string;
    /** Makes other lines of those that there are. */
    set: (made: (lines: readonly Weight[]) => Weight[]) => Promise<void>;
  }
  let { name, weights, otherwise, set }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const spec = $derived(session.spec(name));
  const total = $derived(weights.reduce((sum, line) => sum + line.weight, 0));

  function change(i: number, part: Partial<Weight>): Promise<void> {
    return set((lines) => lines.map((line, at) => (at === i ? { ...line, ...part } : line)));
  }

  /** What a line of one value draws, where a name says more than its number. */
  function drawn(line: Weight): string {
    const named = spec.reads === "degree" || spec.reads === "words";
    return named && line.lowest === line.highest ? shortText(spec, line.lowest, view) : "";
  }

  const reweighings: { how: Reweighing; label: string; help: string }[] = $derived([
    { how: "nothing", label: "all 0", help: `All weights to 0: ${otherwise} counts.` },
    { how: "equal", label: "equal", help: "All weights alike." },
    {
      how: "invert",
      label: "invert",
      help: "The greatest weight is the least, and the other way round.",
    },
    {
      how: "sort",
      label: "sort",
      help: "The weights from the least to the greatest down the lines; once more, from the greatest.",
    },
  ]);

  function add(): Promise<void> {
    const { most, default: usual } = spec;
    return set((lines) => {
      const last = lines.at(-1);
      const next = last ? Math.min(most, last.highest + 1) : usual;
      return [...lines, { lowest: next, highest: next, weight: 1 }];
    });
  }
</script>

<p class="caption">
  {weights.length === 0
    ? `Draw the value from a table instead of ${otherwise}.`
    : total === 0
      ? `All weights are 0, so ${otherwise} counts.`
      : `Values are drawn from here instead of ${otherwise}.`}
</p>
{#each weights as line, i (i)}
  <WeightLine
    number={i + 1}
    weight={line.weight}
    {total}
    rest={spec.rests ? (line.rest ?? false) : undefined}
    change={(part) => change(i, part)}
    remove={() => set((lines) => lines.filter((_, at) => at !== i))}
  >
    <NumberField
      label="Lowest of line {i + 1}"
      help="The min of the line; all values up to its max are equally likely."
      value={line.lowest}
      min={spec.least}
      max={line.highest}
      width="3ch"
      commit={(lowest) => change(i, { lowest })}
    />
    <span class="caption">to</span>
    <NumberField
      label="Highest of line {i + 1}"
      help="The max of the line; all values from its min are equally likely."
      value={line.highest}
      min={line.lowest}
      max={spec.most}
      width="3ch"
      commit={(highest) => change(i, { highest })}
    />
    <span class="caption min-w-0 flex-1 truncate text-right">
      {line.rest ? "" : drawn(line)}
    </span>
  </WeightLine>
{/each}
<button class="control w-full" disabled={weights.length === 32} onclick={add}>+ value</button>
{#if weights.length > 1}
  <div class="flex flex-wrap gap-1 py-1" role="group" aria-label="All weights">
    {#each reweighings as { how, label, help } (how)}
      <button class="control" data-help={help} onclick={() => set((lines) => reweighed(lines, how))}
        >{label}</button
      >
    {/each}
  </div>
{/if}
