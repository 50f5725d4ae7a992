<!-- @component Velocities as stems: the harder, the taller. -->
<script lang="ts">
  import type { MarkProps } from "./props";

  let { cells, values, scale, ink, heard }: MarkProps = $props();
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step] ?? 0}
  {@const x = cell.x + Math.min(cell.width / 2, 10)}
  {@const y = scale.y(value)}
  <g opacity={ink(cell)} stroke="var(--ink)">
    <line x1={x} x2={x} y1={scale.y(scale.least)} y2={y} stroke-width="1.5" />
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
        y={y > scale.y(100) ? y - 3 : y + 12}
        font-size="11"
        stroke="none"
        fill="var(--ink-2)"
        font-family="var(--font-mono)">{value}</text
      >
    {/if}
  </g>
{/each}
