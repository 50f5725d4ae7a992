<!-- @component The spread of a whole lane. -->
<script lang="ts">
  import type { Lane, LaneName, Spread } from "../../api/types";
  import { newSpread } from "../../chart/spreads";
  import { getChartView, getSession } from "../../state/context";
  import SpreadFields from "./SpreadFields.svelte";

  let { name, lane }: { name: LaneName; lane: Lane } = $props();

  const session = getSession();
  const view = getChartView();
  const fresh = $derived(newSpread(session.spec(name), 0));
  const spread: Spread = $derived(lane.spread ?? fresh);
  const off = $derived(spread.depth === 0 || spread.chance === 0);
  /** A step at which the lane's spread is in force, that of the cursor if it is. */
  const step = $derived.by(() => {
    const { first, length } = session.loop(name);
    const steps = [view.stepOf(name), ...Array.from({ length }, (_, i) => first + i)];
    return steps.find((step) => !lane.own?.[step]?.spread) ?? first;
  });

  function set(change: Partial<Spread>): Promise<void> {
    const usual = fresh;
    return session.setLane(name, (now) => ({ spread: { ...(now.spread ?? usual), ...change } }));
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
  <SpreadFields {name} {step} of={name} spreads={[spread]} set={(change) => set(change(spread))} />
{/if}
