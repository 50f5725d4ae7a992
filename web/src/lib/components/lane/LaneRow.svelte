<!-- @component One lane: its head and its strip on the shared ruler. -->
<script lang="ts">
  import type { LaneName, LaneSpec } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import LaneAxis from "./LaneAxis.svelte";
  import LaneHead from "./LaneHead.svelte";
  import LaneStrip from "./LaneStrip.svelte";

  let { spec }: { spec: LaneSpec } = $props();

  const session = getSession();
  const view = getChartView();
  const name = $derived(spec.name as LaneName);
  const lane = $derived(session.lane(name));
  const chartLane = $derived(view.chart?.lanes.find((l) => l.lane === name));
</script>

<div class="contents" data-lane={name}>
  <LaneHead {name} {lane} {chartLane} />
  <LaneAxis {spec} />
  {#if chartLane}
    <LaneStrip {spec} {lane} {chartLane} />
  {:else}
    <div></div>
  {/if}
</div>
