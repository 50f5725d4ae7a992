<!--
@component
The notes of a roll. A press selects, with Shift several; a drag over the paper selects what it crosses, one of a
note moves it, one of its end makes it longer; a double click on the paper writes a note.
-->
<script lang="ts">
  import type { Roll, RollNote } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import { RollPointer } from "../../roll/rollPointer.svelte";
  import { leastWidth, type RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import RollFills, { fills } from "./RollFills.svelte";
  import RollPlayhead from "./RollPlayhead.svelte";
  import RollReadOut from "./RollReadOut.svelte";

  let { roll, scale }: { roll: Roll; scale: RollScale } = $props();

  const desk = getTakeDesk();
  const pointer = new RollPointer(desk, () => scale);

  const changed = $derived(new Set(desk.comparison?.changed));
  const gone = $derived(new Set(desk.comparison?.gone));
  const rows = $derived(
    Array.from({ length: scale.highest - scale.lowest + 1 }, (_, i) => scale.lowest + i),
  );
  // Of notes that begin together the shorter lie on the longer, so that each can be pressed.
  const notes = $derived(roll.notes.toSorted((a, b) => a.start - b.start || b.end - a.end));
  const lines = $derived.by(() => {
    const beats = desk.barLines.beats(scale.from, scale.to + 1);
    return beats.filter(({ beat }) => beat === 0 || desk.bars <= 8);
  });

  function fill(note: RollNote): string {
    const place = roll.tracks.findIndex(({ id }) => id === note.track);
    return fills[place % fills.length] ?? "var(--ink)";
  }

  function faint(note: RollNote): boolean {
    const track = roll.tracks.find(({ id }) => id === note.track);
    return (track?.mute ?? false) || (desk.track !== undefined && desk.track !== note.track);
  }
</script>

<svg
  width={scale.width}
  height={scale.height}
  class="bg-raised block touch-none select-none"
  role="listbox"
  aria-multiselectable="true"
  aria-busy={desk.behind}
  aria-label="Notes of the take, {desk.selected.size} of {roll.notes.length} selected"
  tabindex="0"
  data-help="Arrows: the note before, the next, up and down; with Alt earlier and later. Delete, +, −. Double click writes a note."
  {@attach oneFinger}
  onpointerdown={pointer.down}
  onpointermove={pointer.move}
  onpointerup={pointer.up}
  onpointercancel={pointer.cancel}
  ondblclick={pointer.doubleClick}
  onkeydown={pointer.key}
  onwheel={pointer.wheel}
>
  <RollFills />
  {#each rows as key (key)}
    {#if key % 12 === 0}
      <rect
        y={scale.y(key)}
        width={scale.width}
        height={scale.row}
        fill="var(--water)"
        opacity="0.55"
      />
    {/if}
  {/each}
  {#each lines as { tick, beat } (tick)}
    <line
      x1={scale.x(tick)}
      x2={scale.x(tick)}
      y2={scale.height}
      stroke={beat === 0 ? "var(--line-strong)" : "var(--line)"}
    />
  {/each}
  {#if desk.stretch}
    <rect
      x={scale.x(desk.stretch.from)}
      width={scale.x(desk.stretch.to) - scale.x(desk.stretch.from)}
      height={scale.height}
      fill="var(--lamp-soft)"
      opacity="0.35"
    />
  {/if}
  <rect
    x={scale.x(roll.end)}
    width={scale.width}
    height={scale.height}
    fill="var(--paper-2)"
    opacity="0.7"
  />
  {#each desk.comparison?.added ?? [] as note (note.place)}
    {#if note.end > scale.from && note.start < scale.to}
      <rect
        x={scale.x(note.start)}
        y={scale.y(note.key) + 0.5}
        width={Math.max(leastWidth, scale.x(note.end) - scale.x(note.start))}
        height={Math.max(2, scale.row - 1)}
        fill="none"
        stroke="var(--sounding)"
        stroke-dasharray="3 2"
      />
    {/if}
  {/each}
  {#each notes as note (note.place)}
    {@const shown = pointer.shown(note)}
    {@const selected = desk.selected.has(note.place)}
    <rect
      x={scale.x(shown.start)}
      y={scale.y(shown.key) + 0.5}
      width={Math.max(leastWidth, scale.x(shown.end) - scale.x(shown.start))}
      height={Math.max(2, scale.row - 1)}
      fill={selected ? "var(--lamp)" : fill(note)}
      stroke={gone.has(note.place) || changed.has(note.place) ? "var(--signal)" : "var(--ink)"}
      stroke-width={gone.has(note.place) ? 2 : 1}
      stroke-dasharray={changed.has(note.place) ? "2 2" : undefined}
      opacity={faint(note) ? 0.3 : 1}
      data-note={note.place}
      role="option"
      aria-selected={selected}
      aria-label="{desk.session.notes.name(note.key)}, bar {(
        desk.barLines.position(note.start) + 1
      ).toFixed(2)}, velocity {note.velocity}"
    />
  {/each}
  {#if pointer.box}
    <rect {...pointer.box} fill="var(--lamp-soft)" opacity="0.5" stroke="var(--ink-2)" />
  {/if}
  <RollPlayhead {scale} />
  {#if pointer.readOut}<RollReadOut {...pointer.readOut} />{/if}
</svg>
