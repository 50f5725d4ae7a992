<!-- @component Velocities or lengths of the notes of a roll as stems; a drag over them draws. -->
<script lang="ts">
  import type { Roll, RollNote } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import type { NoteLane } from "../../state/takeDesk.svelte";

  interface Props {
    roll: Roll;
    scale: RollScale;
    lane: NoteLane;
    height: number;
    /** The room below the stems. */
    foot: number;
  }
  let { roll, scale, lane, height, foot }: Props = $props();

  const desk = getTakeDesk();

  /** Values that are being drawn, by the places of their notes. */
  let drawn = $state.raw<Map<number, number>>();

  const most = $derived(lane === "velocities" ? 127 : desk.barLines.length);
  const shown = $derived(
    roll.notes.filter((note) => desk.track === undefined || note.track === desk.track),
  );

  function valueOf(note: RollNote): number {
    return (
      drawn?.get(note.place) ?? (lane === "velocities" ? note.velocity : note.end - note.start)
    );
  }

  function y(value: number): number {
    return height - foot - (Math.min(most, value) / most) * (height - 2 * foot);
  }

  /** Gives the stems near a place its height; where notes are selected, only theirs. */
  function draw(event: PointerEvent & { currentTarget: SVGElement }): void {
    const box = event.currentTarget.getBoundingClientRect();
    const x = event.clientX - box.x;
    const share = (height - foot - (event.clientY - box.y)) / (height - 2 * foot);
    const value = Math.min(most, Math.max(1, Math.round(share * most)));
    const next = new Map(drawn);
    for (const note of shown) {
      const free = !desk.selected.size || desk.selected.has(note.place);
      if (free && Math.abs(scale.x(note.start) - x) < 5) next.set(note.place, value);
    }
    drawn = next;
  }

  async function finish(): Promise<void> {
    if (!drawn) return;
    await desk.setNotes(lane, drawn);
    drawn = undefined;
  }
</script>

<svg
  width={scale.width}
  {height}
  class="block touch-none select-none"
  role="img"
  aria-label={lane === "velocities" ? "Velocities" : "Lengths"}
  data-help="Drag over the stems to draw. Where notes are selected only theirs change; by keys, + and − are for velocity, Alt with up and down for length."
  {@attach oneFinger}
  onpointerdown={(event) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drawn = new Map();
    draw(event);
  }}
  onpointermove={(event) => drawn && draw(event)}
  onpointerup={finish}
  onpointercancel={() => (drawn = undefined)}
>
  <line x2={scale.width} y1={height - foot} y2={height - foot} stroke="var(--line-strong)" />
  {#each shown as note (note.place)}
    {@const value = valueOf(note)}
    {@const x = scale.x(Math.max(note.start, scale.from))}
    <line x1={x} x2={x} y1={height - foot} y2={y(value)} stroke="var(--ink)" />
    <circle
      cx={x}
      cy={y(value)}
      r="2.6"
      fill={desk.selected.has(note.place) ? "var(--lamp)" : "var(--ink)"}
      stroke="var(--ink)"
    />
  {/each}
</svg>
