<!-- @component A lane's name and loop; each is edited in place. -->
<script lang="ts">
  import type { ChartLane, Lane, LaneName, SetLane } from "../../api/types";
  import { laneHelp } from "../../chart/values";
  import { getSession } from "../../state/context";
  import NumberField from "../number-field/NumberField.svelte";
  import OrderPicker from "./OrderPicker.svelte";

  interface Props {
    name: LaneName;
    lane: Lane;
    chartLane: ChartLane | undefined;
  }
  let { name, lane, chartLane }: Props = $props();

  const session = getSession();

  /** A head that is lower than this, in pixels, has no room for its caption. */
  const roomForCaption = 76;
  let height = $state(0);

  const meets = $derived(
    chartLane?.meetsGate.never
      ? "never meets the gate for sure"
      : `meets gate every ${inBars((chartLane?.meetsGate.ticks ?? 0) / session.bar)}`,
  );

  function set(change: Omit<SetLane, "track" | "pattern" | "part" | "lane">): Promise<void> {
    return session.edit({ setLane: { ...session.address, lane: name, ...change } });
  }

  function inBars(bars: number): string {
    return `${bars.toLocaleString("en", { maximumFractionDigits: 2 })} ${bars === 1 ? "bar" : "bars"}`;
  }
</script>

<div
  class="border-line flex min-w-0 flex-col gap-1 overflow-clip border-t py-1.5 pl-3"
  bind:clientHeight={height}
  data-help={laneHelp(name)}
>
  <div class="flex items-center justify-between gap-2">
    <span class="text-[14px] font-semibold">{name}</span>
    {#if name !== "gate"}
      <button
        class="control h-[22px]! text-[11px]!"
        aria-pressed={!lane.linked}
        data-help="Linked, the lane sits on the gate's step. On its own, it runs a loop of its own."
        onclick={() => set({ linked: !lane.linked })}
      >
        own loop
      </button>
    {/if}
  </div>
  {#if lane.linked}
    <span class="caption">linked to the gate</span>
  {:else}
    <div class="flex items-center gap-1">
      <NumberField
        label="{name} loop length in steps"
        help="Loop length in steps, 1 to 64. What lies beyond the end is kept."
        value={lane.length}
        min={1}
        max={64 - lane.first}
        width="2ch"
        commit={(length) => set({ length })}
      />
      <span class="text-ink-2" aria-hidden="true">×</span>
      <select
        class="control w-[62px]"
        aria-label="{name} rate"
        data-help="Rate: the length of the lane's own step. A dot adds half, t is a triplet."
        value={lane.rate}
        onchange={(event) => set({ rate: event.currentTarget.value })}
      >
        {#each session.lists.rates as rate (rate.name)}
          <option value={rate.name}>{rate.name}</option>
        {/each}
      </select>
      <OrderPicker order={lane.order} label="{name} order" choose={(order) => set({ order })} />
    </div>
    {#if name !== "gate" && chartLane && height >= roomForCaption}
      <span class="caption truncate" title={chartLane.meetsGate.never ?? meets}>
        {meets}
      </span>
    {/if}
  {/if}
</div>
