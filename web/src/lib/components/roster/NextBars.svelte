<!-- @component What a track will play in two bars: those that come while playing, else the first two. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import { outlineBars, type Outlines } from "../../state/outlines.svelte";
  import NoteLines from "../marks/NoteLines.svelte";

  let { track, outlines, silent }: { track: Track; outlines: Outlines; silent: boolean } = $props();

  const session = getSession();
  const height = 24;

  let width = $state(0);

  const from = $derived(session.bars.start(outlines.bar));
  const scale = $derived(width / (session.bars.start(outlines.bar + outlineBars) - from));
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
    <NoteLines
      notes={outlines.of(track.id)?.notes ?? []}
      x={(tick) => (tick - from) * scale}
      height={height - 8.4}
      thickness={2.6}
      minWidth={2}
      opacity={silent ? 0.3 : 1}
    />
  </svg>
</div>
