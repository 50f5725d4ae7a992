<!--
@component
Keys in one row, as wide as they are many: those of the scale are paper with their names, the others are shaded.
A press further down is louder.
-->
<script lang="ts">
  import { notesOf } from "../../chart/key";
  import { letterOf } from "../../input/computerKeys";
  import { getPlaying, getSession } from "../../state/context";

  const session = getSession();
  const playing = getPlaying();
  const shown = 36;
  const height = 62;

  let width = $state(0);
  /** The key that each finger holds. */
  const fingers = new Map<number, number>();

  const step = $derived(width / shown);
  const key = $derived(session.project.key);
  const inScale = $derived(new Set(notesOf(key, session.lists).map((n) => (n + key.root) % 12)));
  const keys = $derived(
    Array.from({ length: shown }, (_, i) => playing.lowest + i).filter((k) => k <= 127),
  );

  function at(event: PointerEvent & { currentTarget: SVGElement }): [number, number] {
    const box = event.currentTarget.getBoundingClientRect();
    const place = Math.floor((event.clientX - box.x) / step);
    const share = (event.clientY - box.y) / height;
    return [playing.lowest + place, Math.min(127, Math.max(20, Math.round(30 + share * 97)))];
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
    aria-label="Keys {session.notes.name(playing.lowest)} to {session.notes.name(keys.at(-1) ?? 0)}"
    data-help="Press keys, further down louder. Keys of the scale bear their names. Letters are the computer's keys."
    onpointerdown={(event) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      const [note, velocity] = at(event);
      fingers.set(event.pointerId, note);
      playing.keyboard.press(note, velocity);
    }}
    onpointermove={(event) => {
      const held = fingers.get(event.pointerId);
      const [note, velocity] = at(event);
      if (held === undefined || held === note) return;
      playing.keyboard.release(held);
      fingers.set(event.pointerId, note);
      playing.keyboard.press(note, velocity);
    }}
    onpointerup={release}
    onpointercancel={release}
  >
    {#each keys as note, i (note)}
      {@const named = inScale.has(note % 12)}
      <rect
        x={i * step + 0.5}
        y="0.5"
        width={Math.max(0, step - 1)}
        height={height - 1}
        rx="2"
        fill={playing.down.has(note) ? "var(--lamp)" : named ? "var(--raised)" : "var(--line)"}
        stroke={note % 12 === key.root ? "var(--ink)" : "var(--line-strong)"}
        stroke-width={note % 12 === key.root ? 2 : 1}
        data-key={note}
      />
      {#if playing.computerKeys && letterOf(i)}
        <text
          x={(i + 0.5) * step}
          y="14"
          font-size="11"
          text-anchor="middle"
          font-family="var(--font-mono)"
          fill="var(--ink-2)"
          pointer-events="none">{letterOf(i)}</text
        >
      {/if}
      {#if named}
        <text
          x={(i + 0.5) * step}
          y={height - 10}
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
