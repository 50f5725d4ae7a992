<!-- @component Values as stems: the higher the value, the taller. -->
<script lang="ts">
  import { padTop } from "../../chart/geometry";
  import type { MarkProps } from "./props";

  let { cells, values, scale, ink, heard }: MarkProps = $props();

  /** Stems stand on nothing: 0, or the least value if 0 is none. */
  const foot = $derived(scale.y(Math.max(0, scale.least)));
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step] ?? 0}
  {@const x = cell.x + Math.min(cell.width / 2, 10)}
  {@const y = scale.y(value)}
  <g opacity={ink(cell)} stroke="var(--ink)">
    <line x1={x} x2={x} y1={foot} y2={y} stroke-width="1.5" />
    <circle
      cx={x}
      cy={y}
      r="3"
      fill={heard(cell) ? "var(--ink)" : "var(--paper)"}
      stroke-width="1.3"
    />
    {#if cell.width > 30}
      <line x1={x + 4} x2={cell.x + cell.width - 2} y1={y} y2={y} stroke-opacity="0.45" />
      <text
        x={x + 7}
        y={y > padTop + 16 ? y - 3 : y + 12}
        font-size="11"
        stroke="none"
        fill="var(--ink-2)"
        font-family="var(--font-mono)">{value}</text
      >
    {/if}
  </g>
{/each}
