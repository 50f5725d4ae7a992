<!-- @component The marks of a lane's values, each kind of lane in its own way. -->
<script lang="ts">
  import type { ChartPart, LaneSpec } from "../../api/types";
  import type { Cell, ValueScale } from "../../chart/geometry";
  import { getChartView } from "../../state/context";
  import FogMarks from "./FogMarks.svelte";
  import GateMarks from "./GateMarks.svelte";
  import LengthMarks from "./LengthMarks.svelte";
  import PitchMarks from "./PitchMarks.svelte";
  import StemMarks from "./StemMarks.svelte";

  interface Props {
    spec: LaneSpec;
    index: number;
    chartPart: ChartPart;
    cells: Cell[];
    values: number[];
    scale: ValueScale;
    height: number;
  }
  let { spec, index, chartPart, cells, values, scale, height }: Props = $props();

  const view = getChartView();
  const forecasts = $derived(chartPart.forecasts);

  /** Loops after the first are lighter on the home page, where the first is what is written. */
  function ink(cell: Cell): number {
    return cell.pass === 0 || view.following ? 1 : 0.5;
  }

  /** Whether a note is struck while the lane stands on a cell. */
  function heard(cell: Cell): boolean {
    return forecasts.some((f) => f.sounds && f.tick >= cell.tick && f.tick < cell.end);
  }
</script>

{#if spec.name === "gate"}
  <GateMarks {index} {chartPart} {cells} {values} {ink} {height} />
{:else if spec.name === "pitch"}
  <PitchMarks {cells} {values} {scale} {ink} {heard} />
{:else if spec.name !== "length" && spec.name !== "probability"}
  <StemMarks {cells} {values} {scale} {ink} {heard} />
{:else if spec.name === "length"}
  <LengthMarks {cells} {values} {scale} {ink} {heard} />
{:else}
  <FogMarks {cells} {values} {scale} {ink} />
{/if}
