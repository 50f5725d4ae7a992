<!-- @component The pilot's chart of time: all lanes of a track on one ruler, of a kit all its gates. -->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";
  import { Curves } from "../../state/curves.svelte";
  import { Movers } from "../../state/movers.svelte";
  import KitHead from "../lane/KitHead.svelte";
  import LaneAxis from "../lane/LaneAxis.svelte";
  import LaneHead from "../lane/LaneHead.svelte";
  import LaneStrip from "../lane/LaneStrip.svelte";
  import ChartHead from "./ChartHead.svelte";
  import CurveRow from "./CurveRow.svelte";
  import ToolBar from "./ToolBar.svelte";
  import Playhead from "./Playhead.svelte";
  import Ruler from "./Ruler.svelte";

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
  const rows = $derived(
    [
      ...modulators.map(() => "23px"),
      ...(kit ? session.parts.map(() => "46px") : []),
      ...lanes.map((spec) => view.heights.row(spec)),
    ].join(" "),
  );
</script>

<section
  class="grid min-h-0 min-w-0 grid-rows-[36px_minmax(0,1fr)]"
  aria-label="Chart of {session.track.name}"
>
  <ToolBar />
  <div
    class="relative grid min-h-0 min-w-0 overflow-x-clip overflow-y-auto"
    style:grid-template="36px {rows} / 158px 34px minmax(0, 1fr)"
  >
    <!-- Patterns of the whole chart: the fog hatch, waves like those of a sea chart. -->
    <svg class="absolute" width="0" height="0" aria-hidden="true">
      <pattern id="fog" width="7" height="5" patternUnits="userSpaceOnUse">
        <path
          d="M0 2.5q1.75-1.9 3.5 0t3.5 0"
          fill="none"
          stroke="var(--ink-3)"
          stroke-width="0.8"
        />
      </pattern>
    </svg>
    <ChartHead />
    <Ruler />
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
    {#each lanes as spec (spec.name)}
      <div class="contents" data-lane={spec.name}>
        <LaneHead {spec} />
        <LaneAxis {spec} />
        <LaneStrip {spec} index={session.partIndex} />
      </div>
    {/each}
    <Playhead />
  </div>
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
