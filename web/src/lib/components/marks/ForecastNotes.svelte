<!--
@component
The notes that steps are going to play, as short lines where they sound: shown for steps whose pitch chance decides or a macro or a modulator moves, or that have several hits or notes, where the
heads that are written do not say it. Lines of steps that will be silent are not drawn.
-->
<script lang="ts">
  import type { Forecast, Reach } from "../../api/types";
  import { cellAt, type Cell, type ValueScale } from "../../chart/geometry";
  import { movesTrack } from "../../state/movers.svelte";
  import { getChartView } from "../../state/context";

  interface Props {
    forecasts: readonly Forecast[];
    reaches: readonly Reach[];
    cells: Cell[];
    scale: ValueScale;
  }
  let { forecasts, reaches, cells, scale }: Props = $props();

  const view = getChartView();
  const moved = $derived(movesTrack(view.session, view.session.track.id));
  const uncertain = $derived(new Set(reaches.map(({ step }) => step)));
  /** The degree of each key; a key between two degrees is between their lines. */
  const degrees = $derived(new Map(view.degrees.map(({ key, degree }) => [key, degree])));

  const path = $derived.by(() => {
    const { chart, width } = view;
    if (!chart) return "";
    const x = (tick: number) => ((tick - chart.from) * width) / (chart.to - chart.from);
    return forecasts
      .filter(({ tick, hits }) => moved || hits.length > 1 || uncertain.has(stepAt(x(tick)) ?? -1))
      .flatMap(({ sounds, hits }) => (sounds ? hits.filter((hit) => hit.sounds) : []))
      .flatMap(({ notes }) => notes)
      .flatMap(({ start, end, key }) => {
        const degree = degreeOf(key);
        if (degree === undefined) return [];
        const wide = Math.max(3, x(end) - x(start) - 1);
        return `M${x(start).toFixed(1)} ${scale.y(degree).toFixed(1)}h${wide.toFixed(1)}`;
      })
      .join("");
  });

  const stepAt = (x: number): number | undefined => cellAt(cells, x + 0.01)?.step;

  function degreeOf(key: number): number | undefined {
    const below = degrees.get(key - 1);
    return degrees.get(key) ?? (below === undefined ? undefined : below + 0.5);
  }
</script>

<path
  d={path}
  fill="none"
  stroke="var(--ink)"
  stroke-width="4"
  opacity="0.35"
  data-forecast-notes
/>
