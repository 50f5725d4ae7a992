<!-- @component The pilot's chart of time: all lanes of a track on one ruler. -->
<script lang="ts">
  import { laneShare } from "../../chart/geometry";
  import type { LaneName } from "../../api/types";
  import { getSession } from "../../state/context";
  import LaneRow from "../lane/LaneRow.svelte";
  import ChartHead from "./ChartHead.svelte";
  import Playhead from "./Playhead.svelte";
  import Ruler from "./Ruler.svelte";

  const session = getSession();
  const rows = $derived(
    session.lanes.map((spec) => `minmax(66px, ${laneShare(spec.name as LaneName)}fr)`).join(" "),
  );
</script>

<section
  class="relative grid min-h-0 min-w-0 overflow-x-clip overflow-y-auto"
  aria-label="Chart"
  style:grid-template="36px {rows} / 158px 34px minmax(0, 1fr)"
>
  <!-- Patterns of the whole chart: the fog hatch, waves like those of a sea chart. -->
  <svg class="absolute" width="0" height="0" aria-hidden="true">
    <pattern id="fog" width="7" height="5" patternUnits="userSpaceOnUse">
      <path d="M0 2.5q1.75-1.9 3.5 0t3.5 0" fill="none" stroke="var(--ink-3)" stroke-width="0.8" />
    </pattern>
  </svg>
  <ChartHead />
  <Ruler />
  {#each session.lanes as spec (spec.name)}
    <LaneRow {spec} />
  {/each}
  <Playhead />
</section>
