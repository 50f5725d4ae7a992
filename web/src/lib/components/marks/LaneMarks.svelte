<!-- @component The marks of a lane's values, each kind of lane in its own way. -->
<script lang="ts">
  import type { ChartPart, LaneSpec } from "../../api/types";
  import type { EffectiveMark } from "../../chart/effective";
  import type { Cell, ValueScale } from "../../chart/geometry";
  import { getChartView } from "../../state/context";
  import EffectiveMarks from "./EffectiveMarks.svelte";
  import ForecastNotes from "./ForecastNotes.svelte";
  import FogMarks from "./FogMarks.svelte";
  import GateMarks from "./GateMarks.svelte";
  import LengthMarks from "./LengthMarks.svelte";
  import PitchMarks from "./PitchMarks.svelte";
  import ReachMarks from "./ReachMarks.svelte";
  import StemMarks from "./StemMarks.svelte";

  interface Props {
    spec: LaneSpec;
    index: number;
    chartPart: ChartPart;
    cells: Cell[];
    values: number[];
    scale: ValueScale;
    height: number;
    /** The step of the cursor, if it is on the lane. */
    cursor: number | undefined;
    /** What values turn out to be. */
    marks: EffectiveMark[];
  }
  let { spec, index, chartPart, cells, values, scale, height, cursor, marks }: Props = $props();

  const view = getChartView();
  const reaches = $derived(chartPart.lanes.find(({ lane }) => lane === spec.name)?.reaches ?? []);
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

<ReachMarks {reaches} {cells} {scale} {height} {ink} />
{#if spec.marks === "gates"}
  <GateMarks {index} {chartPart} {cells} {values} {ink} {height} />
{:else if spec.marks === "heads"}
  <ForecastNotes {forecasts} {reaches} {cells} {scale} />
  <PitchMarks name={spec.name} {index} {cells} {values} {scale} {ink} {heard} />
{:else if spec.marks === "lengths"}
  <LengthMarks {cells} {values} {scale} {ink} {heard} />
{:else if spec.marks === "fog"}
  <FogMarks {cells} {values} {scale} {ink} />
  <EffectiveMarks {marks} />
{:else}
  <StemMarks {spec} {cursor} {cells} {values} {scale} {ink} {heard} atFoot={marks.length > 0} />
  <EffectiveMarks {marks} />
{/if}
