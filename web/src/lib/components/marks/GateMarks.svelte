<!--
@component
Gates as bars as wide as the notes that sound. A certain gate is solid; an uncertain one stands in fog, filled if the luck
lets it sound this time and hollow if not. A gate that is heard now is green. The hits of a ratchet, and of a stretched
step, stand where they come, as high as they are loud; what a step asks for besides is written over it.
-->
<script lang="ts">
  import type { ChartPart } from "../../api/types";
  import { Gate, gateLane } from "../../chart/gate";
  import { drawnBars, forecastBars, type GateBars } from "../../chart/gateBars";
  import { padBottom, padTop, type Cell } from "../../chart/geometry";
  import { getChartView, getSession } from "../../state/context";

  interface Props {
    index: number;
    chartPart: ChartPart;
    cells: Cell[];
    values: number[];
    ink: (cell: Cell) => number;
    height: number;
  }
  let { index, chartPart, cells, values, ink, height }: Props = $props();

  const session = getSession();
  const view = getChartView();

  const part = $derived(session.parts[index] ?? session.part);
  const scale = $derived(view.chart ? view.width / (view.chart.to - view.chart.from) : 0);
  const byTick = $derived(new Map(chartPart.forecasts.map((f) => [f.tick, f])));
  const standing = $derived(view.standing(part.id, gateLane));
  const low = $derived(height < 60);
  const top = $derived(low ? padTop - 1 : padTop + 5);
  const barHeight = $derived(Math.max(8, height - top - padBottom - (low ? 3 : 6)));

  /** What becomes of the step of a cell; undefined if nothing does. */
  function barsOf(cell: Cell): GateBars | undefined {
    const [now, stored] = [values[cell.step], session.lane(gateLane, part).steps[cell.step]];
    if (now !== stored) return now === Gate.on ? drawnBars(cell, barHeight) : undefined;
    const forecast = byTick.get(cell.tick);
    return forecast && forecastBars(forecast, cell, { scale, barHeight, width: view.width });
  }

  /** About how wide a character of the words over a step is, in pixels. */
  const character = 6;

  /** What is special of a step, in few characters. */
  function mark(step: number): string {
    const stretch = part.details?.[step]?.stretch ?? 1;
    return `${chartPart.details[step]?.mark ?? ""} ${stretch > 1 ? `×${stretch}` : ""}`.trim();
  }

  /** How many steps are passed over in no time just before a step of a loop that walks forward. */
  function skippedBefore(step: number): number {
    const { first, length } = session.lane(gateLane, part);
    let skipped = 0;
    while (skipped < length - 1) {
      const before = first + ((((step - first - 1 - skipped) % length) + length) % length);
      if (!part.details?.[before]?.skip) break;
      skipped++;
    }
    return skipped;
  }
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step]}
  {@const words = mark(cell.step)}
  {@const skipped = skippedBefore(cell.step)}
  <line
    x1={cell.x + 3}
    x2={cell.x + cell.width - 3}
    y1={top + barHeight + 3}
    y2={top + barHeight + 3}
    stroke="var(--ink)"
    opacity={0.4 * ink(cell)}
  />
  {#if skipped > 0}
    <path
      d="M{cell.x - 4} {top + barHeight - 4}l3.5 3.5l-3.5 3.5m4 -7l3.5 3.5l-3.5 3.5"
      fill="none"
      stroke="var(--signal)"
      opacity={ink(cell)}
    />
  {/if}
  {@const bars = barsOf(cell)}
  {#if bars}
    {@const now = bars.sounds && standing?.tick === cell.tick}
    <g opacity={ink(cell) * (session.stage.partOn(part) ? 0.45 : 1)}>
      {#if bars.doubt > 0}
        <rect
          x={bars.from - 3}
          y={top - 4}
          width={bars.width + 9}
          height={barHeight + 6}
          fill="url(#fog)"
          opacity={0.35 + 0.65 * bars.doubt}
        />
      {/if}
      {#each bars.hits as hit, i (i)}
        <rect
          x={hit.x}
          y={top + 0.5 + barHeight - hit.height}
          width={hit.width}
          height={hit.height}
          rx="1"
          fill={!hit.sounds ? "var(--paper)" : now ? "var(--sounding)" : "var(--ink)"}
          fill-opacity={hit.sounds ? 1 - 0.45 * hit.doubt : 0.55}
          stroke={now ? "var(--sounding)" : "var(--ink)"}
          stroke-width="1.2"
          stroke-dasharray={hit.sounds ? undefined : "2.5 2"}
          data-sounds={hit.sounds}
        />
      {/each}
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
  {#if words && cell.width > 14}
    <text
      x={cell.x + 8}
      y={padTop - 2}
      font-size="11"
      fill="var(--ink)"
      stroke="var(--paper)"
      stroke-width="3"
      paint-order="stroke"
      opacity={ink(cell)}>{words}</text
    >
  {/if}
  {@const special = chartPart.details[cell.step]?.words}
  {#if part.details?.[cell.step]?.ratchet && cell.width > 7}
    {@const under = cell.width > 14 && words.length * character > cell.width - 20 ? 9 : 0}
    <path
      d="M{cell.x + cell.width - 8} {3 + under}v7m3 -7v7m3 -7v7"
      stroke="var(--signal)"
      opacity={ink(cell)}
      data-ratchet={cell.step}
    />
  {/if}
  {#if special}
    <rect
      x={cell.x}
      y="0"
      width={cell.width}
      {height}
      fill="transparent"
      data-help="Step {cell.step + 1}: {special}."
    />
  {/if}
{/each}
