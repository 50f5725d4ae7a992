<!--
@component
Values as stems: the higher the value, the taller. What a value is stands at its head where it fits; of values that are not
usual it may reach over usual ones behind them.
-->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { padTop } from "../../chart/geometry";
  import { shortText } from "../../chart/values";
  import { getChartView } from "../../state/context";
  import type { MarkProps } from "./props";

  interface Props extends MarkProps {
    spec: LaneSpec;
    /** The step whose value is written by the cursor. */
    cursor: number | undefined;
    /** Whether values are written at the feet of the stems, as rings are around the heads. */
    atFoot: boolean;
  }
  let { spec, cells, values, scale, ink, heard, cursor, atFoot }: Props = $props();

  const view = getChartView();

  /** Stems stand on nothing: 0, or the least value if 0 is none. */
  const foot = $derived(scale.y(Math.max(0, scale.least)));
  /** How wide a character is, in pixels. */
  const character = 6.7;
  /** Usual values are written only where there is plenty of room, so that the others stand out. */
  const roomForUsual = 22;
  /** How wide a cell is at whose head a line shows how long it lasts. */
  const roomForLine = 30;

  /** Heads, and what is written at them. */
  const heads = $derived.by(() => {
    let room = view.width;
    return cells
      .map((cell) => {
        const value = values[cell.step] ?? 0;
        const x = cell.x + Math.min(cell.width / 2, 8);
        return { cell, value, x, y: scale.y(value), usual: value === spec.default };
      })
      .reverse()
      .map((head) => {
        const text = written(head.value, head.usual, head.cell.width, room - head.cell.x);
        if (!head.usual) room = head.cell.x;
        const shown = head.cell.step === cursor && head.cell.pass === 0 ? "" : text;
        return { ...head, text: shown, centred: text.length * character <= head.cell.width };
      })
      .reverse();
  });

  /** What is written of a value on a cell of some width, with some room until the next value that is not usual. */
  function written(value: number, usual: boolean, width: number, room: number): string {
    const text = shortText(spec, value, view);
    if (usual)
      return spec.words || width < Math.max(roomForUsual, text.length * character + 4) ? "" : text;
    const fits = Math.floor((room - 2) / character);
    if (text.length <= fits) return text;
    return spec.words && fits > 2 ? `${text.slice(0, fits - 1)}…` : "";
  }
</script>

{#each heads as { cell, x, y, text, centred } (cell.tick)}
  {@const above = y > padTop + 10}
  <g opacity={ink(cell)} stroke="var(--ink)">
    <line x1={x} x2={x} y1={foot} y2={y} stroke-width="1.5" />
    <circle
      cx={x}
      cy={y}
      r="3"
      fill={heard(cell) ? "var(--ink)" : "var(--paper)"}
      stroke-width="1.3"
    />
    {#if cell.width > roomForLine}
      <line x1={x + 4} x2={cell.x + cell.width - 2} y1={y} y2={y} stroke-opacity="0.45" />
    {/if}
    {#if text}
      <text
        x={centred ? x : cell.x + 1}
        y={atFoot ? foot : above ? y - 5 : y + 13}
        text-anchor={centred ? "middle" : "start"}
        font-size="11"
        stroke="var(--paper)"
        stroke-width="3"
        paint-order="stroke"
        fill="var(--ink)"
        font-family="var(--font-mono)">{text}</text
      >
    {/if}
  </g>
{/each}
