<!--
@component
Keys in the layout that is selected: those of the scale are paper with their names, the others are shaded. A press further down a key is
louder, unless the velocity is set.
-->
<script lang="ts">
  import { notesOf } from "../../chart/key";
  import { letterOf } from "../../input/computerKeys";
  import { heightOf, keyAt, keysOf, type Placed } from "../../input/layouts";
  import { getPlaying, getSession } from "../../state/context";

  const session = getSession();
  const playing = getPlaying();

  let width = $state(0);
  /** The key that each finger holds. */
  const fingers = new Map<number, number>();

  const height = $derived(heightOf(playing.layout));
  const key = $derived(session.project.key);
  const inScale = $derived(new Set(notesOf(key, session.lists).map((n) => (n + key.root) % 12)));
  const keys = $derived(
    keysOf(playing.layout, playing.lowest, { root: key.root, classes: inScale }, width),
  );
  const notes = $derived(keys.map((placed) => placed.key));

  /** How hard a key is struck at a height of it: further down harder. */
  function velocityAt({ y, height }: Placed, at: number): number {
    const share = (at - y) / height;
    return playing.velocity ?? Math.min(127, Math.max(20, Math.round(30 + share * 97)));
  }

  /** Has a finger hold the key where it is, and no other. */
  function touch(event: PointerEvent & { currentTarget: SVGElement }): void {
    const box = event.currentTarget.getBoundingClientRect();
    const y = event.clientY - box.y;
    const at = keyAt(keys, event.clientX - box.x, y);
    const held = fingers.get(event.pointerId);
    if (at?.key === held && held !== undefined) return;
    release(event);
    if (!at) return;
    fingers.set(event.pointerId, at.key);
    playing.keyboard.press(at.key, velocityAt(at, y));
  }

  function release(event: PointerEvent): void {
    const held = fingers.get(event.pointerId);
    fingers.delete(event.pointerId);
    if (held !== undefined) playing.keyboard.release(held);
  }
</script>

<div class="min-w-0" bind:clientWidth={width}>
  <svg
    {width}
    {height}
    class="block touch-none select-none"
    role="img"
    aria-label="Keys {session.notes.name(Math.min(...notes))} to {session.notes.name(
      Math.max(...notes),
    )}"
    data-help="Press keys, further down louder unless the velocity is set. Keys of the scale bear their names. Letters are the computer's keys."
    onpointerdown={(event) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      touch(event);
    }}
    onpointermove={(event) => {
      if (event.buttons) touch(event);
    }}
    onpointerup={release}
    onpointercancel={release}
  >
    {#each keys as { key: note, x, y, width: wide, height: tall }, i (i)}
      {@const named = inScale.has(note % 12)}
      <rect
        x={x + 0.5}
        y={y + 0.5}
        width={Math.max(0, wide - 1)}
        height={tall - 1}
        rx="2"
        fill={playing.down.has(note) ? "var(--lamp)" : named ? "var(--raised)" : "var(--line)"}
        stroke={note % 12 === key.root ? "var(--ink)" : "var(--line-strong)"}
        stroke-width={note % 12 === key.root ? 2 : 1}
        data-key={note}
      />
      {#if playing.layout === "piano" && playing.computerKeys && letterOf(note - playing.lowest)}
        <text
          x={x + wide / 2}
          y={y + 13}
          font-size="11"
          text-anchor="middle"
          font-family="var(--font-mono)"
          fill="var(--ink-2)"
          pointer-events="none">{letterOf(note - playing.lowest)}</text
        >
      {/if}
      {#if named}
        <text
          x={x + wide / 2}
          y={y + tall - (playing.layout === "piano" ? 5 : 11)}
          font-size="11"
          text-anchor="middle"
          font-family="var(--font-mono)"
          fill="var(--ink)"
          pointer-events="none">{session.notes.name(note)}</text
        >
      {/if}
    {/each}
  </svg>
</div>
