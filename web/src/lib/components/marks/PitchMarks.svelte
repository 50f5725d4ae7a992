<!--
@component
Pitches as heads on the lines of the key's degrees: full where a note will be heard. A step of several notes has a head for each, as early or late and as
long as the note is by itself, with a stroke that joins them.
-->
<script lang="ts">
  import type { LaneName, StepNote } from "../../api/types";
  import type { Cell } from "../../chart/geometry";
  import { getChartView, getSession } from "../../state/context";
  import type { MarkProps } from "./props";

  interface Props extends MarkProps {
    name: LaneName;
    /** The place of the part whose lane it is. */
    index: number;
  }
  let { name, index, cells, values, scale, ink, heard }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const own = $derived(session.lane(name, session.parts[index]).own ?? {});

  /** Where the head of a note of a cell is; the one that the lanes have, if it is not said which. */
  function head(cell: Cell, note: StepNote = {}): { x: number; y: number; to: number } {
    const perTick = cell.width / (cell.end - cell.tick);
    const x = cell.x + Math.min(cell.width / 2, 10) + (note.nudge ?? 0) * perTick;
    const value = values[cell.step] ?? 0;
    const degree = value + (note.degree ?? 0) + view.degreesPerOctave * (note.octave ?? 0);
    const to = note.length ? x + note.length * perTick : cell.x + cell.width - 2;
    return { x, y: scale.y(degree), to };
  }

  const sign = ({ alteration = 0 }: StepNote): string => (alteration > 0 ? "♯" : "♭");
</script>

{#snippet mark({ x, y, to }: { x: number; y: number; to: number }, full: boolean)}
  {#if to - x > 14}
    <line x1={x + 6} x2={to} y1={y} y2={y} stroke="var(--ink)" stroke-width="1.4" />
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
{/snippet}

{#each cells as cell (cell.tick)}
  {@const notes = own[cell.step]?.notes ?? []}
  {@const full = heard(cell)}
  <g opacity={ink(cell)}>
    {#if notes.length === 0}
      {@render mark(head(cell), full)}
    {:else}
      {@const heads = notes.map((note) => ({ note, ...head(cell, note) }))}
      {#if heads.length > 1}
        <path
          d={[...heads]
            .sort((a, b) => a.y - b.y)
            .map(({ x, y }, i) => `${i ? "L" : "M"}${x} ${y}`)
            .join("")}
          fill="none"
          stroke="var(--ink)"
          stroke-width="1.2"
        />
      {/if}
      {#each heads as { note, ...at }, i (i)}
        {@render mark(at, full)}
        {#if note.alteration}
          <text x={at.x - 13} y={at.y + 4} font-size="11" fill="var(--ink)">{sign(note)}</text>
        {/if}
      {/each}
    {/if}
  </g>
{/each}
