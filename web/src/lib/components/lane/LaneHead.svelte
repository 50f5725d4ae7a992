<!-- @component A lane's name and loop; each is edited in place. -->
<script lang="ts">
  import { counted } from "../../counted";
  import type { LaneSpec } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import LoopFields from "./LoopFields.svelte";

  let { spec }: { spec: LaneSpec } = $props();

  const session = getSession();
  const view = getChartView();

  /** A head that is lower than this, in pixels, has no room for its caption. */
  const roomForCaption = 86;
  let height = $state(0);

  const name = $derived(spec.name);
  const lane = $derived(session.lane(name));
  const kit = $derived(session.track.kind === "kit");
  const chartLane = $derived(view.chartPart?.lanes.find((l) => l.lane === name));
  const meets = $derived.by(() => {
    if (!chartLane) return "";
    const { never, ticks = 0 } = chartLane.meetsGate;
    if (never) return "never meets the gate for sure";
    return `meets gate every ${counted(ticks / session.bars.length, "bar")}`;
  });
  const moves = $derived(spec.movers.find(({ value }) => value === lane.moves)?.label ?? "");
  /** What there is to know of the lane beside its loop. */
  const caption = $derived(
    [
      lane.linked ? `linked to the gate${kit ? ` of ${session.part.name}` : ""}` : "",
      lane.moves !== "clock" && !lane.linked ? `by ${moves}` : "",
      lane.amount !== 100 ? `${lane.amount} %` : "",
      lane.weights?.some((w) => w.weight > 0) ? "weights" : "",
      lane.spread?.chance && lane.spread.depth ? "spread" : "",
      lane.evolve?.percent ? "evolves" : "",
      !spec.leads && !lane.linked && chartLane ? meets : "",
    ]
      .filter((word) => word)
      .join(" · "),
  );
</script>

<div
  class="border-line flex min-w-0 flex-col gap-1 overflow-clip border-t py-1.5 pl-3"
  bind:clientHeight={height}
  data-help={spec.help}
>
  <div class="flex items-center justify-between gap-2">
    <button
      class="min-w-0 flex-1 cursor-pointer truncate text-left text-[14px] font-semibold"
      onclick={() => view.moveCursor(name, view.stepOf(name))}>{spec.label}</button
    >
    {#if !spec.leads}
      <button
        class="control h-[22px]! text-[11px]!"
        aria-pressed={!lane.linked}
        data-help="Linked, the lane sits on the gate's step. On its own, it runs a loop of its own."
        onclick={() => session.setLane(name, { linked: !lane.linked })}
      >
        own loop
      </button>
    {/if}
  </div>
  {#if lane.linked}
    <span class="caption truncate" title={caption}>{caption}</span>
  {:else}
    <LoopFields label={spec.label} {lane} set={(change) => session.setLane(name, change)} />
    {#if caption && height >= roomForCaption}
      <span class="caption truncate" title={chartLane?.meetsGate.never ?? caption}>{caption}</span>
    {/if}
  {/if}
</div>
