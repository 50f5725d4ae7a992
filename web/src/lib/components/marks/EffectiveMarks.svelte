<!--
@component
What values turn out to be where they are not what is written, as macros, modulators, an amount or a spread have them: a ring where the value will be, tied to the
written one by a dotted line; what it is stands in its title.
-->
<script lang="ts">
  import type { Forecast } from "../../api/types";
  import { cellAt, type Cell, type ValueScale } from "../../chart/geometry";
  import { getChartView } from "../../state/context";

  interface Props {
    forecasts: readonly Forecast[];
    cells: Cell[];
    values: number[];
    scale: ValueScale;
    /** What a value turns out to be; undefined where nothing is heard of it. */
    effective: (forecast: Forecast) => number | undefined;
  }
  let { forecasts, cells, values, scale, effective }: Props = $props();

  const view = getChartView();

  const marks = $derived.by(() => {
    const { chart, width } = view;
    if (!chart) return [];
    const perTick = width / (chart.to - chart.from);
    return forecasts.flatMap((forecast) => {
      const x = (forecast.tick - chart.from) * perTick;
      const cell = cellAt(cells, x + 0.01);
      const is = effective(forecast);
      const written = cell && values[cell.step];
      if (is === undefined || written === undefined || Math.abs(is - written) < 1) return [];
      const at = x + Math.min((cell?.width ?? 0) / 2, 8);
      return [
        {
          x: at,
          is: Math.round(is),
          from: scale.y(written),
          to: scale.y(is),
        },
      ];
    });
  });
</script>

<g data-effective={marks.length}>
  {#each marks as { x, is, from, to }, i (i)}
    <line x1={x} x2={x} y1={from} y2={to} stroke="var(--ink-2)" stroke-dasharray="1.5 2.5" />
    <circle cx={x} cy={to} r="3" fill="var(--paper)" stroke="var(--ink-2)" stroke-width="1.5"
      ><title>will be {is}</title></circle
    >
  {/each}
</g>
