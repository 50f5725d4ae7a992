<!-- @component A table from which the duration of each step is drawn, as bars that show the true percentages. -->
<script lang="ts">
  import type { Duration } from "../../api/types";
  import { getSession } from "../../state/context";
  import WeightLine from "./WeightLine.svelte";

  let { durations }: { durations: Duration[] } = $props();

  const session = getSession();
  const total = $derived(durations.reduce((sum, line) => sum + line.weight, 0));

  function set(made: (lines: readonly Duration[]) => Duration[]): Promise<void> {
    return session.setPart((now) => ({ durations: made(now.durations ?? []) }));
  }

  function change(i: number, part: Partial<Duration>): Promise<void> {
    return set((lines) => lines.map((line, at) => (at === i ? { ...line, ...part } : line)));
  }
</script>

<p class="caption">
  {durations.length === 0
    ? "Draw each step's duration from a table instead of the rate."
    : "Durations are drawn from here instead of the rate."}
</p>
{#each durations as line, i (i)}
  <WeightLine
    number={i + 1}
    weight={line.weight}
    {total}
    rest={line.rest ?? false}
    change={(part) => change(i, part)}
    remove={() => set((lines) => lines.filter((_, at) => at !== i))}
  >
    <select
      class="control min-w-0 flex-1"
      aria-label="Duration of line {i + 1}"
      value={line.value}
      onchange={(event) => change(i, { value: event.currentTarget.value })}
    >
      {#each session.lists.rates as { name } (name)}<option>{name}</option>{/each}
    </select>
  </WeightLine>
{/each}
<button
  class="control w-full"
  disabled={durations.length === 32}
  onclick={() => set((lines) => [...lines, { value: "1/16", weight: 1 }])}>+ length</button
>
