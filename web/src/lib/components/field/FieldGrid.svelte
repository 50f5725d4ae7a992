<!--
@component
The grid of a field: notes by their names, arrows between cells, walls, and the travellers as they move. The pointer writes it by the tool; all is done by
keys too.
-->
<script lang="ts">
  import { samePlace } from "../../field/cells";
  import { FieldPointer } from "../../field/fieldPointer.svelte";
  import { pressFieldKey } from "../../field/fieldKeys";
  import { oneFinger } from "../../oneFinger";
  import { getChartView, getSession } from "../../state/context";
  import type { Moments } from "../../state/moments.svelte";
  import FieldArrows from "./FieldArrows.svelte";
  import FieldStarts from "./FieldStarts.svelte";
  import Moving from "./Moving.svelte";

  let { moments }: { moments: Moments } = $props();

  const session = getSession();
  const view = getChartView();
  const field = view.field;
  const margin = 22;

  let width = $state(0);
  let height = $state(0);
  const size = $derived(
    Math.max(
      16,
      Math.min(
        (width - 2 * margin) / field.field.columns,
        (height - 2 * margin) / field.field.rows,
      ),
    ),
  );
  const pointer = new FieldPointer(field, () => ({ size, margin }));
  const cursor = $derived(field.cell(field.cursor));
  const atCursor = $derived(
    [
      `column ${field.cursor.column + 1}, row ${field.cursor.row + 1}`,
      cursor?.wall ? "wall" : "",
      cursor?.note ? moments.name(cursor) || "note" : "",
      (cursor?.arrows ?? []).length > 0 ? `arrows: ${cursor?.arrows?.length}` : "",
      cursor?.letter ? `letter ${cursor.letter}` : "",
      cursor?.repeater ? "repeater" : "",
    ]
      .filter(Boolean)
      .join(", "),
  );

  const x = (column: number) => margin + column * size;
  const y = (row: number) => margin + row * size;
</script>

<div class="relative min-h-0 min-w-0 p-1" bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <svg
    width={2 * margin + size * field.field.columns}
    height={2 * margin + size * field.field.rows}
    class="mx-auto block touch-none outline-offset-[-2px] select-none"
    role="application"
    tabindex="0"
    aria-label="Field, {atCursor}"
    data-field
    data-help="Arrow keys move, with Shift select, with Alt draw arrows. Enter writes, Delete clears, + and − change the notes. Ctrl+C and Ctrl+V copy and paste."
    {@attach oneFinger}
    onpointerdown={pointer.down}
    onpointermove={pointer.move}
    onpointerup={pointer.up}
    onpointercancel={pointer.cancel}
    onkeydown={(event) => pressFieldKey(event, field)}
  >
    <rect
      x={margin}
      y={margin}
      width={size * field.field.columns}
      height={size * field.field.rows}
      fill="var(--raised)"
      stroke="var(--line-strong)"
    />
    {#each { length: field.field.columns }, column (column)}
      <text
        x={x(column) + size / 2}
        y={margin - 8}
        text-anchor="middle"
        class="fill-ink-2 text-[11px]">{column + 1}</text
      >
      <path
        d="M{x(column) + size / 2} {margin - 4}v8M{x(column) + size / 2} {y(field.field.rows) -
          4}v8"
        stroke="var(--line-strong)"
      />
    {/each}
    {#each { length: field.field.rows }, row (row)}
      <text
        x={margin - 8}
        y={y(row) + size / 2 + 4}
        text-anchor="end"
        class="fill-ink-2 text-[11px]">{row + 1}</text
      >
      <path
        d="M{margin - 4} {y(row) + size / 2}h8M{x(field.field.columns) - 4} {y(row) + size / 2}h8"
        stroke="var(--line-strong)"
      />
    {/each}
    {#each field.selected as place (`${place.column} ${place.row}`)}
      <rect
        x={x(place.column) + 1}
        y={y(place.row) + 1}
        width={size - 2}
        height={size - 2}
        fill="var(--lamp-soft)"
        stroke={samePlace(place, field.cursor) ? "var(--lamp)" : "none"}
        stroke-width="2"
      />
    {/each}
    {#each field.cells as cell (`${cell.column} ${cell.row}`)}
      {#if cell.column < field.field.columns && cell.row < field.field.rows}
        {@const middle = { x: x(cell.column) + size / 2, y: y(cell.row) + size / 2 }}
        <g data-cell="{cell.column},{cell.row}">
          {#if cell.wall}
            <rect
              x={x(cell.column) + size * 0.12}
              y={y(cell.row) + size * 0.12}
              width={size * 0.76}
              height={size * 0.76}
              rx="2"
              fill="var(--ink)"
            />
          {/if}
          {#if cell.repeater}
            <path
              d="M{middle.x} {middle.y - size * 0.42}L{middle.x +
                size * 0.42} {middle.y}L{middle.x} {middle.y + size * 0.42}L{middle.x -
                size * 0.42} {middle.y}Z"
              fill="none"
              stroke="var(--sounding)"
              stroke-dasharray="3 2"
            />
          {/if}
          {#if cell.letter}
            <text x={x(cell.column) + 4} y={y(cell.row) + 12} class="fill-signal text-[11px] italic"
              >{cell.letter}</text
            >
          {/if}
          {#if cell.note}
            <text
              x={middle.x}
              y={middle.y + 4}
              text-anchor="middle"
              class={["fill-ink text-[12px]", (cell.probability ?? 0) > 0 && "italic"]}
              >{moments.name(cell) || "·"}</text
            >
          {/if}
        </g>
      {/if}
    {/each}
    <FieldArrows cells={field.cells} {x} {y} {size} />
    <FieldStarts {x} {y} {size} />
    <Moving {moments} {x} {y} {size} {session} />
  </svg>
  {#if !field.cells.some(({ note }) => note)}
    <p class="text-ink-2 absolute inset-x-0 bottom-1 text-center" role="note">
      The field has no notes, so the track is silent.
    </p>
  {/if}
</div>
