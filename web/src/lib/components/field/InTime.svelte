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

  /** Velocities as shares of the loudest, in as many shades as can be told apart: a path each, so that thousands of notes cost no more than few. */
  const shades = [0.25, 0.5, 0.75, 1];

  /** The outlines of the notes of a shade that sound, or that chance silences. */
  function boxes(sounds: boolean, shade: number): string {
    return notes
      .filter(
        (note) => note.sounds === sounds && Math.ceil((note.velocity / 127) * 4) / 4 === shade,
      )
      .map(({ start, end, key }) => {
        const [width, height] = [Math.max(2, x(end) - x(start) - 1), Math.min(8, row)];
        return `M${x(start).toFixed(1)} ${y(key).toFixed(1)}h${width.toFixed(1)}v${height.toFixed(1)}h${(-width).toFixed(1)}z`;
      })
      .join("");
  }

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

<div class="min-h-0 min-w-0" bind:clientWidth={width} bind:clientHeight={height}>
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
    {#each shades as shade (shade)}
      <path d={boxes(true, shade)} fill="var(--ink)" opacity={0.4 + 0.6 * shade} />
      <path
        d={boxes(false, shade)}
        fill="none"
        stroke="var(--ink-2)"
        stroke-dasharray="2 2"
        opacity={0.4 + 0.6 * shade}
      />
    {/each}
    {#if session.transport.playing}
      <line y2={height} stroke="var(--signal)" stroke-width="2" bind:this={line} />
    {/if}
  </svg>
</div>
