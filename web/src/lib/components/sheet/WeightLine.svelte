<!-- @component A line of a table of weights: what it draws, its weight, and its true share of all as a bar. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Snippet } from "svelte";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    /** The number of the line, from 1. */
    number: number;
    weight: number;
    /** The sum of all weights of the table. */
    total: number;
    /** Whether the line is a rest; without it lines cannot be rests. */
    rest?: boolean | undefined;
    change: (line: { weight?: number; rest?: boolean }) => Promise<void>;
    remove: () => Promise<void>;
    children: Snippet;
  }
  let { number, weight, total, rest, change, remove, children }: Props = $props();

  const percent = $derived(total === 0 ? 0 : (100 * weight) / total);
</script>

<div class="py-1">
  <div class="flex items-center gap-1">
    {@render children()}
    {#if rest !== undefined}
      <button
        class="control px-1!"
        aria-pressed={rest}
        data-help="Rest: the line draws silence."
        onclick={() => change({ rest: !rest })}>rest</button
      >
    {/if}
    <button
      class="control min-w-[22px]! px-0!"
      aria-label="Remove line {number}"
      data-help="Take the line out of the table."
      onclick={remove}>×</button
    >
  </div>
  <div class="mt-0.5 flex items-center gap-1">
    <NumberField
      label="Weight of line {number}"
      help="Weight: how likely the line is, against the sum of all."
      value={weight}
      {...bounds.Weight.weight}
      usual={1}
      width="4ch"
      commit={(value) => change({ weight: value })}
    />
    <span class="border-line bg-paper h-[14px] min-w-0 flex-1 border">
      <span class="bg-ink block h-full" style:width="{percent}%"></span>
    </span>
    <span class="w-[54px] text-right font-mono text-[12px] whitespace-nowrap">
      {percent.toFixed(1)} %
    </span>
  </div>
</div>
