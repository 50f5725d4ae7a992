<!-- @component A lane's name and loop; each is edited in place. -->
<script lang="ts">
  import { counted } from "../../counted";
  import type { LaneSpec } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import LanePull from "./LanePull.svelte";
  import LoopFields from "./LoopFields.svelte";

  let { spec }: { spec: LaneSpec } = $props();

  const session = getSession();
  const view = getChartView();

  /** A head that is lower than this, in pixels, has no room for its caption. */
  const roomForCaption = 86;
  let height = $state(0);

  const name = $derived(spec.name);
  const folded = $derived(view.heights.isFolded(name));
  const lane = $derived(session.lane(name));
  const kit = $derived(session.track.kind === "kit");
  const chartLane = $derived(view.chartPart?.lanes.find((l) => l.lane === name));
  const meets = $derived.by(() => {
    if (!chartLane) return "";
    const { never, ticks = 0 } = chartLane.meetsGate;
    if (never) return "never in step for sure";
    return `in step after ${counted(ticks / session.bars.length, "bar")}`;
  });
  const moves = $derived(spec.movers.find(({ value }) => value === lane.moves)?.label ?? "");
  /** What there is to know of the lane beside its loop. */
  const caption = $derived(
    [
      lane.linked ? `on the gate's steps${kit ? ` of ${session.part.name}` : ""}` : "",
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
  class={[
    "border-line relative flex min-w-0 flex-col gap-1 overflow-clip border-t pl-1.5",
    folded ? "justify-center" : "py-1.5",
  ]}
  bind:clientHeight={height}
  data-help={spec.help}
>
  <div class="flex items-center gap-1">
    <button
      class="text-ink-2 w-4 shrink-0 cursor-pointer"
      aria-label="Fold {spec.label}"
      aria-expanded={!folded}
      data-help="Fold the lane to one line, or open it again."
      onclick={() => view.heights.toggle(name)}>{folded ? "▸" : "▾"}</button
    >
    <button
      class="min-w-0 flex-1 cursor-pointer truncate text-left text-[14px] font-semibold"
      onclick={() => view.moveCursor(name, view.stepOf(name))}>{spec.label}</button
    >
    {#if !spec.leads && !folded}
      <button
        class="control h-[22px]! text-[11px]!"
        aria-label="independent loop of {spec.label}"
        aria-pressed={!lane.linked}
        data-help="Independent loop: the lane has a loop of its own. Off, it sits on the gate's step."
        onclick={() => session.setLane(name, { linked: !lane.linked })}
      >
        loop
      </button>
    {/if}
  </div>
  {#if !folded && lane.linked}
    <span class="caption truncate pl-1.5" title={caption}>{caption}</span>
  {:else if !folded}
    <LoopFields label={spec.label} {lane} set={(change) => session.setLane(name, change)} />
    {#if caption && height >= roomForCaption}
      <span class="caption truncate pl-1.5" title={chartLane?.meetsGate.never ?? caption}
        >{caption}</span
      >
    {/if}
  {/if}
  <LanePull {spec} {height} />
</div>
