<!-- @component Probabilities as a shore line with fog above it: the fog is what stays open. -->
<script lang="ts">
  import { padTop } from "../../chart/geometry";
  import type { MarkProps } from "./props";

  let { cells, values, scale, ink }: Omit<MarkProps, "heard"> = $props();

  const widthOfDigit = 7;
</script>

{#each cells as cell (cell.tick)}
  {@const value = values[cell.step] ?? 0}
  {@const y = scale.y(value)}
  <g opacity={ink(cell)}>
    <rect
      x={cell.x}
      y={padTop - 3}
      width={cell.width}
      height={Math.max(0, y - padTop + 3)}
      fill="url(#fog)"
    />
    <rect
      x={cell.x + 1}
      {y}
      width={Math.max(1, cell.width - 2)}
      height={scale.y(0) - y}
      fill="var(--ink)"
      opacity="0.09"
    />
    <rect
      x={cell.x + 1}
      y={y - 1.2}
      width={Math.max(1, cell.width - 2)}
      height="2.4"
      fill="var(--ink)"
    />
    {#if cell.width > 3 + widthOfDigit * String(value).length}
      <text
        x={cell.x + cell.width / 2}
        y={value > 40 ? y + 13 : y - 5}
        text-anchor="middle"
        font-size="11"
        fill="var(--ink)"
        stroke="var(--paper)"
        stroke-width="3"
        paint-order="stroke"
        font-family="var(--font-mono)">{value}</text
      >
    {/if}
  </g>
{/each}
