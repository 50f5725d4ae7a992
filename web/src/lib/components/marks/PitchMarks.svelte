<!-- @component Pitches as heads on the lines of the key's degrees: full where a note will be heard. -->
<script lang="ts">
  import type { MarkProps } from "./props";

  let { cells, values, scale, ink, heard }: MarkProps = $props();
</script>

{#each cells as cell (cell.tick)}
  {@const x = cell.x + Math.min(cell.width / 2, 10)}
  {@const y = scale.y(values[cell.step] ?? 0)}
  {@const full = heard(cell)}
  <g opacity={ink(cell)}>
    {#if cell.width > 24}
      <line
        x1={x + 6}
        x2={cell.x + cell.width - 2}
        y1={y}
        y2={y}
        stroke="var(--ink)"
        stroke-width="1.4"
      />
    {/if}
    <ellipse
      cx={x}
      cy={y}
      rx="5.4"
      ry="4.1"
      transform="rotate(-18 {x} {y})"
      fill={full ? "var(--ink)" : "var(--paper)"}
      stroke="var(--ink)"
      stroke-width={full ? 1.3 : 1}
      stroke-opacity={full ? 1 : 0.6}
    />
  </g>
{/each}
