<!-- @component The notes of a field in time, from the bar that plays on; what chance silences is outlined. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import type { Moments } from "../../state/moments.svelte";

  let { moments }: { moments: Moments } = $props();

  const session = getSession();
  let width = $state(0);
  let height = $state(0);
  let line = $state<SVGLineElement>();
  const head = 20;

  const notes = $derived(
    moments.forecasts.flatMap((forecast) =>
      forecast.hits.flatMap((hit) =>
        hit.notes.map((note) => ({ ...note, sounds: forecast.sounds && hit.sounds })),
      ),
    ),
  );
  const lowest = $derived(Math.min(60, ...notes.map(({ key }) => key)) - 1);
  const highest = $derived(Math.max(72, ...notes.map(({ key }) => key)) + 1);
  const x = (tick: number) => ((tick - moments.from) / (moments.to - moments.from)) * width;
  const y = (key: number) => head + ((highest - key) / (highest - lowest + 1)) * (height - head);
  const row = $derived(Math.max(2, (height - head) / (highest - lowest + 1)));
  const bars = $derived(session.bars.at(moments.from));

  $effect(() => {
    if (!session.transport.playing) return;
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const tick = session.transport.tickAt(now);
      if (tick !== undefined) line?.setAttribute("transform", `translate(${x(tick)} 0)`);
    });
    return () => cancelAnimationFrame(request);
  });
</script>

<div
  class="border-line min-h-0 min-w-0 border-l"
  bind:clientWidth={width}
  bind:clientHeight={height}
>
  <svg {width} {height} class="block" role="img" aria-label="Notes in time, {notes.length}">
    {#each [0, 1, 2] as bar (bar)}
      <line
        x1={x(session.bars.start(bars + bar))}
        x2={x(session.bars.start(bars + bar))}
        y2={height}
        stroke="var(--line)"
      />
      <text x={x(session.bars.start(bars + bar)) + 3} y="13" class="fill-ink-2 text-[11px]"
        >{bars + bar + 1}</text
      >
    {/each}
    {#each notes as note, i (i)}
      <rect
        x={x(note.start)}
        y={y(note.key)}
        width={Math.max(2, x(note.end) - x(note.start) - 1)}
        height={Math.min(8, row)}
        fill={note.sounds ? "var(--ink)" : "none"}
        stroke={note.sounds ? "none" : "var(--ink-2)"}
        stroke-dasharray="2 2"
        opacity={0.4 + (0.6 * note.velocity) / 127}
      />
    {/each}
    {#if session.transport.playing}
      <line y2={height} stroke="var(--signal)" stroke-width="2" bind:this={line} />
    {/if}
  </svg>
</div>
