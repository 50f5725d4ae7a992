<!--
@component
Gates as bars as wide as their notes. A certain gate is solid; a doubtful one stands in fog, filled if
the luck lets it sound this time and hollow if not. A gate that is heard now is green. Ratchets are
combs, whose teeth lie where the strikes come; what a step asks for besides is written over it.
-->
<script lang="ts">
  import type { ChartPart } from "../../api/types";
  import { conditionMark } from "../../chart/conditions";
  import { Gate } from "../../chart/gate";
  import { segmentsOf } from "../../chart/stretch";
  import { padBottom, padTop, strikeShare, type Cell } from "../../chart/geometry";
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
  const ratchets = $derived(chartPart.lanes.find((l) => l.lane === "ratchet")?.moves);
  const standing = $derived(view.standing(part.id, "gate"));
  const low = $derived(height < 60);
  const top = $derived(low ? padTop - 1 : padTop + 5);
  const barHeight = $derived(Math.max(8, height - top - padBottom - (low ? 3 : 6)));

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

  /**
   * The strikes of a step as bars, for each length that is struck; those of a ratchet lie and fade as the part's
   * ratchets do.
   */
  function strikesOf(cell: Cell, b: { x: number; width: number }) {
    const detail = part.details?.[cell.step] ?? {};
    const move = ratchets?.findLast((m) => m.tick <= cell.tick);
    const count = move ? (session.lane("ratchet", part).steps[move.step] ?? 1) : 1;
    const { spacing, ramp } = part.ratchet;
    const length = cell.width / (detail.stretch || 1);
    const segments = segmentsOf(detail);
    const begins = segments[0]?.first ?? 0;
    return segments.flatMap((segment, place) => {
      const from = (segment.first - begins) * length;
      const room = segment.lengths * length;
      if (count === 1) {
        // The last one sounds as the first would: it can last beyond the step.
        const width = place === segments.length - 1 ? b.width : Math.min(b.width, room - 1.5);
        return [{ x: b.x + 1.5 + from, width, height: barHeight }];
      }
      return Array.from({ length: count }, (_, i) => {
        const x = strikeShare(spacing, i, count) * room;
        const gap = strikeShare(spacing, i + 1, count) * room - x;
        const loud = 1 + (ramp / 100) * (i / (count - 1));
        return {
          x: b.x + 1.5 + from + x,
          width: Math.max(1, Math.min(b.width, gap - 1.5)),
          height: barHeight * Math.min(1, Math.max(0.2, loud)),
        };
      });
    });
  }

  /** What is special of a step, in few characters. */
  function mark(step: number): string {
    const detail = part.details?.[step];
    if (!detail) return "";
    const stretch = detail.stretch && detail.stretch > 1 ? `×${detail.stretch}` : "";
    return `${conditionMark(detail.condition ?? "")} ${stretch}`.trim();
  }

  /** How many steps are passed over in no time just before a step of a loop that walks forward. */
  function skippedBefore(step: number): number {
    const { first, length } = session.lane("gate", part);
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
  {#if value === Gate.on}
    {@const b = bar(cell)}
    {@const now = b.sounds && standing?.tick === cell.tick}
    <g opacity={ink(cell) * (session.stage.partOn(part) ? 0.45 : 1)}>
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
      {#each strikesOf(cell, b) as strike, i (i)}
        <rect
          x={strike.x}
          y={top + 0.5 + barHeight - strike.height}
          width={strike.width}
          height={strike.height}
          rx="1"
          fill={now ? "var(--sounding)" : b.sounds ? "var(--ink)" : "var(--paper)"}
          fill-opacity={b.sounds ? 1 - 0.45 * b.doubt : 0.55}
          stroke={now ? "var(--sounding)" : "var(--ink)"}
          stroke-width="1.2"
          stroke-dasharray={b.sounds ? undefined : "2.5 2"}
          data-sounds={b.sounds}
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
{/each}
