<!-- @component The chart of time: all lanes of a track on one ruler, of a kit all its gates. -->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";
  import { Curves } from "../../state/curves.svelte";
  import { Movers } from "../../state/movers.svelte";
  import KitHead from "../lane/KitHead.svelte";
  import LaneStrip from "../lane/LaneStrip.svelte";
  import CurveRow from "./CurveRow.svelte";
  import LaneGrid from "./LaneGrid.svelte";
  import ToolBar from "./ToolBar.svelte";

  const session = getSession();
  const view = getChartView();

  const kit = $derived(session.track.kind === "kit");
  const lanes = $derived(session.lanes.filter((spec) => !kit || !spec.leads));
  const gate = $derived(session.spec(gateLane));
  const movers = new Movers(session);
  const modulators = $derived(movers.of(session.track));
  const bar = $derived(session.bars.at(view.from));
  const bars = $derived(Math.min(16, session.bars.at(view.to - 1) + 1 - bar));
  const curves = new Curves(session, () => ({ bar, bars }));
  const heights = $derived([
    ...modulators.map(() => "23px"),
    ...(kit ? session.parts.map(() => "46px") : []),
  ]);
</script>

<section
  data-area
  class="grid min-h-0 min-w-0 grid-rows-[36px_minmax(0,1fr)]"
  aria-label="Chart of {session.track.name}"
>
  <ToolBar />
  <LaneGrid {lanes} {heights}>
    {#snippet above()}
      {#each modulators as modulator (modulator.id)}
        <CurveRow {modulator} {movers} {curves} {bar} {bars} />
      {/each}
      {#if kit}
        {#each session.parts as part, index (part.id)}
          <div class="contents" data-lane={gateLane} data-part={index}>
            <KitHead {part} {index} />
            <LaneStrip spec={gate} {index} />
          </div>
        {/each}
      {/if}
    {/snippet}
  </LaneGrid>
  {#if view.box}
    <div
      class="border-ink bg-lamp/25 pointer-events-none fixed z-20 border"
      style:left="{view.box.x}px"
      style:top="{view.box.y}px"
      style:width="{view.box.width}px"
      style:height="{view.box.height}px"
    ></div>
  {/if}
</section>
