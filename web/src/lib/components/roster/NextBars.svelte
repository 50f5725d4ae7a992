<!-- @component What a track will play in two bars: those that come while playing, else the first two. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import { outlineBars, type Outlines } from "../../state/outlines.svelte";

  let { track, outlines, silent }: { track: Track; outlines: Outlines; silent: boolean } = $props();

  const session = getSession();
  const height = 24;

  let width = $state(0);

  const notes = $derived.by(() => {
    const from = outlines.bar * session.bar;
    const scale = width / (outlineBars * session.bar);
    const notes = outlines.of(track.id);
    const keys = notes.map((note) => note.key);
    const [lowest, highest] = [Math.min(...keys), Math.max(...keys)];
    return notes.map(({ start, end, key }) => ({
      x: (start - from) * scale,
      y: 4 + ((highest - key) / Math.max(1, highest - lowest)) * (height - 11),
      width: Math.max(2, (end - start) * scale),
    }));
  });
</script>

<div bind:clientWidth={width} data-help="The next two bars, as the luck has decided them.">
  <svg {width} {height} class="block" aria-hidden="true">
    <line x1="0" x2={width} y1={height - 1.5} y2={height - 1.5} stroke="var(--line-strong)" />
    <line
      x1={width / 2}
      x2={width / 2}
      y1={height - 6}
      y2={height - 1}
      stroke="var(--line-strong)"
    />
    {#each notes as note, i (i)}
      <rect
        x={note.x}
        y={note.y}
        width={note.width}
        height="2.6"
        fill="var(--ink)"
        opacity={silent ? 0.3 : 1}
      />
    {/each}
  </svg>
</div>
