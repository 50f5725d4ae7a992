<!-- @component Where the travellers of a field start, in which direction, and those that wait because they have no place on it. -->
<script lang="ts">
  import { steps } from "../../field/cells";
  import { getChartView } from "../../state/context";

  interface Props {
    x: (column: number) => number;
    y: (row: number) => number;
    size: number;
  }
  let { x, y, size }: Props = $props();

  const field = getChartView().field;
  const waits = (column: number, row: number) =>
    column >= field.field.columns || row >= field.field.rows || field.cell({ column, row })?.wall;
  const waiting = $derived(field.travellers.filter((t) => waits(t.column, t.row)));
</script>

{#each field.travellers as traveller (traveller.id)}
  {#if !waits(traveller.column, traveller.row)}
    {@const [columns, rows] = steps[traveller.direction ?? 0] ?? steps[0]}
    {@const middle = {
      x: x(traveller.column) + size * 0.82,
      y: y(traveller.row) + size * 0.8,
    }}
    <g data-start={traveller.id}>
      <circle
        cx={middle.x}
        cy={middle.y}
        r="7"
        fill={field.traveller?.id === traveller.id ? "var(--lamp)" : "var(--paper)"}
        stroke="var(--ink-2)"
      />
      <text
        x={middle.x}
        y={middle.y + 3.5}
        text-anchor="middle"
        class={[
          "text-[11px]",
          field.traveller?.id === traveller.id ? "fill-[var(--on-lamp)]" : "fill-ink",
        ]}>{traveller.id}</text
      >
      {#if traveller.motion === "straight"}
        <path
          d="M{middle.x + columns * 8} {middle.y + rows * 8}l{columns * 6} {rows * 6}"
          stroke="var(--ink-2)"
          stroke-width="2"
        />
      {/if}
    </g>
  {/if}
{/each}
{#if waiting.length > 0}
  <text x="2" y="12" class="fill-signal text-[11px]"
    >waiting: {waiting.map(({ id }) => id).join(", ")}</text
  >
{/if}
