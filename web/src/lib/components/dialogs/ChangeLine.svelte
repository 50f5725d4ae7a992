<!-- @component A line of a list of changes: from which bar on, what, and a way to remove it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Snippet } from "svelte";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    /** What changes, for the names of the fields. */
    what: string;
    /** The number of the bar, from 1. */
    bar: number;
    move: (bar: number) => Promise<void>;
    remove: () => Promise<void>;
    children: Snippet;
  }
  let { what, bar, move, remove, children }: Props = $props();
</script>

<div class="flex items-center gap-2 py-0.5">
  <span class="caption">from bar</span>
  <NumberField
    label="Bar of the {what} change"
    help="The bar from which it holds."
    value={bar}
    min={bounds.MeterChange.bar.min + 1}
    max={bounds.MeterChange.bar.max + 1}
    width="6ch"
    commit={move}
  />
  {@render children()}
  <button
    class="control min-w-[22px]! px-0!"
    aria-label="Remove the {what} change at bar {bar}"
    onclick={remove}>×</button
  >
</div>
