<!--
@component
What values turn out to be where they are not what is written, as macros, modulators, an amount or a spread have them: a ring where the value will be, tied to the
written one by a dotted line, and what it is as a number where there is room, else in its title.
-->
<script lang="ts">
  import type { EffectiveMark } from "../../chart/effective";

  let { marks }: { marks: readonly EffectiveMark[] } = $props();
</script>

<g data-effective={marks.length}>
  {#each marks as { x, is, wide, from, to }, i (i)}
    <line x1={x} x2={x} y1={from} y2={to} stroke="var(--ink-2)" stroke-dasharray="1.5 2.5" />
    <circle cx={x} cy={to} r="3" fill="var(--paper)" stroke="var(--ink-2)" stroke-width="1.5"
      ><title>will be {is}</title></circle
    >
    {#if wide}
      <text
        x={x + 6}
        y={to + 3.5}
        font-size="10"
        fill="var(--ink)"
        stroke="var(--paper)"
        stroke-width="3"
        paint-order="stroke"
        font-family="var(--font-mono)">{is}</text
      >
    {/if}
  {/each}
</g>
