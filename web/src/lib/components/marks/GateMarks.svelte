<!--
@component
Gates as bars as wide as their notes. A certain gate is solid; a doubtful one stands in fog, filled if
the luck lets it sound this time and hollow if not. A gate that is heard now is green.
-->
<script lang="ts">
  import type { Forecast } from "../../api/types";
  import { padBottom, padTop, type Cell } from "../../chart/geometry";
  import { Gate } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";

  interface Props {
    cells: Cell[];
    values: number[];
    forecasts: Forecast[];
    ink: (cell: Cell) => number;
    height: number;
  }
  let { cells, values, forecasts, ink, height }: Props = $props();

  const session = getSession();
  const view = getChartView();

  const scale = $derived(view.chart ? view.width / (view.chart.to - view.chart.from) : 0);
  const byTick = $derived(new Map(forecasts.map((f) => [f.tick, f])));
  const standing = $derived(session.places.of(session.track.id, "gate"));
  const top = padTop + 5;
  const barHeight = $derived(Math.max(8, height - top - padBottom - 6));

  function bar(cell: Cell) {
    const forecast = byTick.get(cell.tick);
    const length = forecast ? (forecast.end - forecast.start) * scale : cell.width * 0.6;
    const x = cell.x + (forecast ? (forecast.start - forecast.tick) * scale : 0);
    return {
      x,
      width: Math.max(3, Math.min(length, view.width - x) - 1),
      doubt: forecast ? 1 - forecast.probability / 100 : 0,
      sounds: forecast?.sounds ?? true,
    };
  }
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step]}
  <line
    x1={cell.x + 3}
    x2={cell.x + cell.width - 3}
    y1={top + barHeight + 3}
    y2={top + barHeight + 3}
    stroke="var(--ink)"
    opacity={0.4 * ink(cell)}
  />
  {#if value === Gate.on}
    {@const b = bar(cell)}
    {@const now = b.sounds && standing?.tick === cell.tick}
    <g opacity={ink(cell)}>
      {#if b.doubt > 0}
        <rect
          x={b.x - 3}
          y={top - 4}
          width={b.width + 9}
          height={barHeight + 6}
          fill="url(#fog)"
          opacity={0.35 + 0.65 * b.doubt}
        />
      {/if}
      <rect
        x={b.x + 1.5}
        y={top + 0.5}
        width={b.width}
        height={barHeight}
        rx="1"
        fill={now ? "var(--sounding)" : b.sounds ? "var(--ink)" : "var(--paper)"}
        fill-opacity={b.sounds ? 1 - 0.45 * b.doubt : 0.55}
        stroke={now ? "var(--sounding)" : "var(--ink)"}
        stroke-width="1.2"
        stroke-dasharray={b.sounds ? undefined : "2.5 2"}
        data-sounds={b.sounds}
      />
    </g>
  {:else if value === Gate.tie}
    <path
      d="M{cell.x - 4} {top + barHeight + 3}q{cell.width / 2} 7 {cell.width + 2} 0"
      fill="none"
      stroke="var(--ink)"
      stroke-width="1.6"
      opacity={ink(cell)}
    />
  {/if}
{/each}
