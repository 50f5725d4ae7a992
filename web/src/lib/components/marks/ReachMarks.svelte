<!--
@component
Between which values chance leads steps, as fog; a step that has chance of its own has a wave above it. What a step has of its own is said where the pointer rests.
-->
<script lang="ts">
  import type { Reach } from "../../api/types";
  import { padTop, type Cell, type ValueScale } from "../../chart/geometry";

  interface Props {
    reaches: readonly Reach[];
    cells: Cell[];
    scale: ValueScale;
    height: number;
    ink: (cell: Cell) => number;
  }
  let { reaches, cells, scale, height, ink }: Props = $props();

  const byStep = $derived(new Map(reaches.map((reach) => [reach.step, reach])));
  /** How far fog reaches beyond the values at its ends, in pixels. */
  const beyond = 4;
</script>

{#each cells as cell (cell.tick)}
  {@const reach = byStep.get(cell.step)}
  {#if reach}
    {@const top = Math.max(padTop - 6, scale.y(reach.highest) - beyond)}
    {@const bottom = Math.min(height, scale.y(reach.lowest) + beyond)}
    <g opacity={ink(cell)}>
      {#if reach.lowest < reach.highest && bottom > top}
        <rect
          x={cell.x + 0.5}
          y={top}
          width={Math.max(1, cell.width - 1)}
          height={bottom - top}
          fill="url(#fog)"
          opacity={reach.own ? 1 : 0.55}
          data-reach={reach.step}
        />
      {/if}
      {#if reach.own && cell.width > 7}
        <path
          d="M{cell.x + cell.width / 2 - 5} {cell.first ? padTop + 3 : 6}q2.5 -4 5 0t5 0"
          fill="none"
          stroke="var(--signal)"
          stroke-width="1.5"
          data-own={reach.step}
        />
      {/if}
      {#if reach.words}
        <rect
          x={cell.x}
          y="0"
          width={cell.width}
          {height}
          fill="transparent"
          data-help="Step {cell.step + 1}: {reach.words}."
        />
      {/if}
    </g>
  {/if}
{/each}
