<!-- @component A field: its grid, its notes in time, and the lanes that its sounding cells move. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";
  import { Moments } from "../../state/moments.svelte";
  import ChartHead from "../chart/ChartHead.svelte";
  import Playhead from "../chart/Playhead.svelte";
  import Ruler from "../chart/Ruler.svelte";
  import LaneAxis from "../lane/LaneAxis.svelte";
  import LaneHead from "../lane/LaneHead.svelte";
  import LaneStrip from "../lane/LaneStrip.svelte";
  import FieldBar from "./FieldBar.svelte";
  import FieldGrid from "./FieldGrid.svelte";
  import InTime from "./InTime.svelte";

  const session = getSession();
  const view = getChartView();
  const moments = new Moments(session);

  const lanes = $derived(session.lanes.filter((spec) => !spec.leads && spec.reads !== "degree"));
  const rows = $derived(lanes.map((spec) => view.heights.row(spec)).join(" "));
</script>

<section
  class="grid min-h-0 min-w-0 grid-rows-[36px_minmax(300px,1fr)_minmax(0,auto)]"
  aria-label="Chart of {session.track.name}"
>
  <FieldBar {moments} />
  <div class="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)_minmax(120px,220px)]">
    <FieldGrid {moments} />
    <InTime {moments} />
  </div>
  <div
    class="border-line relative grid max-h-[230px] min-h-0 min-w-0 overflow-x-clip overflow-y-auto border-t"
    style:grid-template="36px {rows} / 158px 34px minmax(0, 1fr)"
  >
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
    {#each lanes as spec (spec.name)}
      <div class="contents" data-lane={spec.name}>
        <LaneHead {spec} />
        <LaneAxis {spec} />
        <LaneStrip {spec} index={session.partIndex} />
      </div>
    {/each}
    <Playhead />
  </div>
</section>
