<!-- @component The arrows of cells, from each towards its neighbour; where several lead on, with the odds of each in percent. -->
<script lang="ts">
  import type { Cell } from "../../api/types";
  import { steps } from "../../field/cells";

  interface Props {
    cells: readonly Cell[];
    x: (column: number) => number;
    y: (row: number) => number;
    size: number;
  }
  let { cells, x, y, size }: Props = $props();

  const arrows = $derived(
    cells.flatMap((cell) => {
      const all = (cell.arrows ?? []).reduce((sum, { weight }) => sum + weight, 0);
      return (cell.arrows ?? []).map(({ to, weight }) => {
        const [columns, rows] = steps[to] ?? steps[0];
        const length = Math.hypot(columns, rows);
        const from = 0.3 / Math.max(1, length / 1.2);
        const middle = { x: x(cell.column) + size / 2, y: y(cell.row) + size / 2 };
        const at = (share: number) => ({
          x: middle.x + columns * size * share,
          y: middle.y + rows * size * share,
        });
        const end = at(1 - from);
        const angle = Math.atan2(rows, columns);
        const head = (turn: number) =>
          `${end.x - 7 * Math.cos(angle + turn)} ${end.y - 7 * Math.sin(angle + turn)}`;
        const begin = at(from);
        return {
          key: `${cell.column} ${cell.row} ${to}`,
          weight,
          odds: all > 0 ? Math.round((100 * weight) / all) : 0,
          fork: (cell.arrows ?? []).length > 1,
          path: `M${begin.x} ${begin.y}L${end.x} ${end.y}M${head(0.5)}L${end.x} ${end.y}L${head(-0.5)}`,
          label: at(0.5),
        };
      });
    }),
  );
</script>

{#each arrows as arrow (arrow.key)}
  <path
    d={arrow.path}
    fill="none"
    stroke="var(--ink-2)"
    stroke-width="1.6"
    stroke-dasharray={arrow.weight === 0 ? "2 3" : undefined}
  />
  {#if arrow.fork}
    <text
      x={arrow.label.x + 3}
      y={arrow.label.y - 3}
      class="fill-ink-2 text-[11px]"
      stroke="var(--raised)"
      stroke-width="3"
      paint-order="stroke">{arrow.odds}</text
    >
  {/if}
{/each}
