<!-- @component The travellers as numbered buoys where they are, where each goes next, and the rings of waves, while the project plays. -->
<script lang="ts">
  import type { FieldWave } from "../../api/types";
  import { lastAt, waysAt, type Way } from "../../field/moments";
  import { getChartView } from "../../state/context";
  import type { Moments } from "../../state/moments.svelte";
  import type { Session } from "../../state/session.svelte";

  interface Props {
    moments: Moments;
    x: (column: number) => number;
    y: (row: number) => number;
    size: number;
    session: Session;
  }
  let { moments, x, y, size, session }: Props = $props();

  const field = getChartView().field;
  let ways = $state.raw<Way[]>([]);
  let waves = $state.raw<(FieldWave & { reach: number })[]>([]);
  let sounding = $state.raw<string[]>([]);

  $effect(() => {
    if (!session.transport.playing) return;
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const tick = session.transport.tickAt(now);
      if (tick === undefined) return;
      const moment = moments.list[lastAt(moments.list, tick)];
      ways = waysAt(moments.list, tick);
      waves = (moment?.waves ?? []).map((wave) => ({
        ...wave,
        reach:
          wave.ring +
          Math.max(0, 1 - (wave.next - tick) / Math.max(1, wave.next - (moment?.tick ?? 0))),
      }));
      const cells = (moment?.sounds ?? []).map(({ column, row }) => `${column} ${row}`);
      if (cells.join() !== sounding.join()) sounding = [...new Set(cells)];
    });
    return () => {
      cancelAnimationFrame(request);
      ways = [];
      waves = [];
      sounding = [];
    };
  });

  const shape = (id: number) => field.travellers.find((t) => t.id === id)?.shape ?? "";
  const fills = ["var(--ink)", "var(--signal)", "var(--sounding)"];
  const fill = (id: number) => fills[field.travellers.findIndex((t) => t.id === id) % fills.length];
  const middle = (way: { column: number; row: number }) => ({
    x: x(way.column) + size / 2,
    y: y(way.row) + size / 2,
  });

  /** The contour of a wave: a circle, a square, or a square on its point. */
  function contour(wave: FieldWave & { reach: number }): string {
    const { x: cx, y: cy } = middle(wave);
    const r = Math.max(0.1, wave.reach) * size;
    if (shape(wave.traveller) === "square")
      return `M${cx - r} ${cy - r}h${2 * r}v${2 * r}h${-2 * r}Z`;
    if (shape(wave.traveller) === "diamond")
      return `M${cx} ${cy - r}L${cx + r} ${cy}L${cx} ${cy + r}L${cx - r} ${cy}Z`;
    return `M${cx - r} ${cy}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
  }
</script>

<clipPath id="field-edge">
  <rect x={x(0)} y={y(0)} width={size * field.field.columns} height={size * field.field.rows} />
</clipPath>
<g clip-path="url(#field-edge)" class="pointer-events-none">
  {#each waves as wave, i (i)}
    <path
      d={contour(wave)}
      fill="none"
      stroke="var(--sounding)"
      stroke-width={wave.ring < 2 ? 2 : 1}
      opacity={Math.max(0.15, 0.8 - wave.reach / 12)}
    />
  {/each}
</g>
{#each sounding as cell (cell)}
  {@const [column, row] = cell.split(" ").map(Number)}
  <rect
    x={x(column ?? 0) + 2}
    y={y(row ?? 0) + 2}
    width={size - 4}
    height={size - 4}
    fill="none"
    stroke="var(--sounding)"
    stroke-width="2"
    class="pointer-events-none"
  />
{/each}
{#each ways as way (way.id)}
  {@const at = middle(way)}
  {#if way.next}
    {@const to = middle(way.next)}
    <line
      x1={at.x}
      y1={at.y}
      x2={to.x}
      y2={to.y}
      stroke={fill(way.id)}
      stroke-dasharray="2 3"
      class="pointer-events-none"
    />
  {/if}
  <g transform="translate({at.x} {at.y})" class="pointer-events-none" data-traveller={way.id}>
    <path d="M-7 -7h14l3 14h-20zM0 -7v-6m-3 0h6" fill={fill(way.id)} stroke={fill(way.id)} />
    <text y="5" text-anchor="middle" class="fill-paper text-[11px]">{way.id}</text>
  </g>
{/each}
