<!-- @component Lengths as bars that fill their share of the step, and stand the higher the longer. -->
<script lang="ts">
  import { lengthInSteps } from "../../chart/values";
  import { getChartView } from "../../state/context";
  import type { MarkProps } from "./props";

  let { cells, values, scale, ink, heard }: MarkProps = $props();

  const view = getChartView();
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step] ?? 0}
  {@const y = scale.y(value)}
  {@const room = Math.max(1, cell.width - 3)}
  <g opacity={ink(cell)} stroke="var(--ink)">
    <line x1={cell.x + 1.5} x2={cell.x + 1.5} y1={y - 5} y2={y + 5} stroke-width="1.2" />
    <rect
      x={cell.x + 1.5}
      y={y - 2.5}
      width={Math.max(1.5, room * lengthInSteps(value, view))}
      height="5"
      fill={heard(cell) ? "var(--ink)" : "var(--paper)"}
      stroke-width="1"
    />
    <line
      x1={cell.x + 1.5 + room * Math.min(1, lengthInSteps(value, view))}
      x2={cell.x + 1.5 + room}
      y1={y}
      y2={y}
      stroke-opacity="0.45"
      stroke-dasharray="1 2.5"
    />
  </g>
{/each}
