<!-- @component Beat lines, rows, the beginnings of loops, the selected step and the step that is playing. -->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { gateLane } from "../../chart/gate";
  import type { Cell, ValueScale } from "../../chart/geometry";
  import { getChartView, getSession } from "../../state/context";

  interface Props {
    spec: LaneSpec;
    index: number;
    cells: Cell[];
    height: number;
    width: number;
    cursor: number | undefined;
    scale: ValueScale;
  }
  let { spec, index, cells, height, width, cursor, scale }: Props = $props();

  const session = getSession();
  const view = getChartView();

  const beats = $derived(
    session.bars.beats(view.from, view.to).map(({ tick, beat, group }) => ({
      x: ((tick - view.from) * width) / (view.to - view.from),
      strong: beat === 0,
      group,
    })),
  );
  const lane = $derived(session.lane(spec.name, session.parts[index]));
  const selected = $derived(
    new Set(index === session.partIndex ? (view.selected[spec.name] ?? []) : []),
  );
  const locked = $derived(new Set(lane.locked ?? []));
  const standing = $derived(
    view.standing((session.parts[index] ?? session.part).id, lane.linked ? gateLane : spec.name),
  );
  const playing = $derived(
    cells.find((cell) =>
      view.following
        ? cell.tick === standing?.tick
        : cell.pass === 0 && cell.step === standing?.step,
    ),
  );
  const rows = $derived(
    spec.reads === "degree"
      ? view.degrees.filter((d) => d.degree >= scale.least && d.degree <= scale.most)
      : [],
  );
</script>

{#if playing}
  <rect x={playing.x} y="0" width={playing.width} {height} fill="var(--water)" />
{/if}
{#each beats as beat, i (i)}
  <line
    x1={beat.x + 0.5}
    x2={beat.x + 0.5}
    y1="0"
    y2={height}
    stroke={beat.strong ? "var(--line-strong)" : "var(--line)"}
    stroke-width={beat.group && !beat.strong ? 2 : 1}
  />
{/each}
{#each rows as row (row.degree)}
  <line
    x1="0"
    x2={width}
    y1={scale.y(row.degree)}
    y2={scale.y(row.degree)}
    stroke={row.root ? "var(--ink-3)" : "var(--line)"}
    stroke-width={row.root ? 0.9 : 0.6}
  />
{/each}
{#each cells as cell (cell.tick)}
  {#if selected.has(cell.step) || cell.step === cursor}
    <rect
      x={cell.x + 0.5}
      y="1"
      width={Math.max(2, cell.width - 1)}
      height={height - 2}
      fill="var(--lamp)"
      opacity={cell.pass === 0 ? 0.42 : 0.16}
    />
  {/if}
  {#if locked.has(cell.step) && cell.width > 9}
    <path
      d="M{cell.x + cell.width - 8} 5.5h6v5h-6z m1.2 0v-1.6a1.8 1.8 0 0 1 3.6 0v1.6"
      fill="var(--ink-2)"
      fill-opacity="0.85"
      stroke="var(--ink-2)"
      opacity={cell.pass === 0 ? 1 : 0.5}
    />
  {/if}
  {#if cell.first}
    <path
      d="M{cell.x} 2l6 4.5l-6 4.5z"
      fill={cell.pass === 0 || view.following ? "var(--ink)" : "var(--ink-3)"}
    />
  {/if}
{/each}
{#if playing}
  <path
    d="M{playing.x + playing.width / 2 - 4.5} {height}h9l-4.5 -7z"
    fill="var(--signal)"
    data-place={playing.step}
  />
{/if}
