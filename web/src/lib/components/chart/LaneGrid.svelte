<!-- @component Lanes under one ruler, each with its head, its axis and its strip; above them what else goes through the same time. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import type { LaneSpec } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import LaneAxis from "../lane/LaneAxis.svelte";
  import LaneHead from "../lane/LaneHead.svelte";
  import LaneStrip from "../lane/LaneStrip.svelte";
  import ChartHead from "./ChartHead.svelte";
  import Playhead from "./Playhead.svelte";
  import Ruler from "./Ruler.svelte";

  interface Props {
    lanes: readonly LaneSpec[];
    /** The heights of the rows above the lanes, and those rows. */
    heights?: readonly string[];
    above?: Snippet;
    /** How the whole is placed. */
    place?: string;
  }
  let { lanes, heights = [], above, place = "" }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const rows = $derived([...heights, ...lanes.map((spec) => view.heights.row(spec))].join(" "));
</script>

<div
  class={["relative grid min-h-0 min-w-0 overflow-x-clip overflow-y-auto", place]}
  style:grid-template="36px {rows} / 158px 34px minmax(0, 1fr)"
>
  <!-- The hatch of what is left to chance: waves like those of a sea chart. -->
  <svg class="absolute" width="0" height="0" aria-hidden="true">
    <pattern id="fog" width="7" height="5" patternUnits="userSpaceOnUse">
      <path d="M0 2.5q1.75-1.9 3.5 0t3.5 0" fill="none" stroke="var(--ink-3)" stroke-width="0.8" />
    </pattern>
  </svg>
  <ChartHead />
  <Ruler />
  {@render above?.()}
  {#each lanes as spec (spec.name)}
    <div class="contents" data-lane={spec.name}>
      <LaneHead {spec} />
      <LaneAxis {spec} />
      <LaneStrip {spec} index={session.partIndex} />
    </div>
  {/each}
  <Playhead />
</div>
