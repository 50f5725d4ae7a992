<!-- @component The ruler over the strips: its bars, what waits, and the playhead, which goes down over all of them. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { stripBars, type Perform } from "../../state/perform.svelte";

  let { perform, width, height }: { perform: Perform; width: number; height: number } = $props();

  const session = getSession();
  let head = $state<SVGGElement>();

  const scale = $derived(width / Math.max(1, perform.to - perform.from));
  const lines = $derived(
    Array.from({ length: stripBars }, (_, i) => {
      const bar = perform.bar + i;
      const [from, to] = [session.bars.start(bar), session.bars.start(bar + 1)];
      return { bar, x: (from - perform.from) * scale, w: (to - from) * scale };
    }),
  );
  const flags = $derived(
    session.stage.queue
      .filter(
        ({ at, doing }) =>
          doing.control.name !== "pattern" && at >= perform.from && at < perform.to,
      )
      .map(({ id, at, words }) => ({ id, words, x: (at - perform.from) * scale })),
  );

  $effect(() => {
    if (!session.transport.playing) return;
    const [from, perTick] = [perform.from, scale];
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const tick = session.transport.tickAt(now);
      if (tick === undefined || !head) return;
      head.setAttribute("transform", `translate(${((tick - from) * perTick).toFixed(1)} 0)`);
    });
    return () => cancelAnimationFrame(request);
  });
</script>

<svg
  {width}
  {height}
  class="pointer-events-none absolute top-0 right-0 block"
  role="img"
  aria-label="Bars {perform.bar + 1} to {perform.bar + stripBars}"
>
  {#each lines as { bar, x, w } (bar)}
    <line x1={x + 0.5} x2={x + 0.5} y1="20" y2={height} stroke="var(--line)" />
    <rect
      {x}
      y="17"
      width={w}
      height="4"
      fill={bar % 2 === 0 ? "var(--ink-3)" : "var(--paper)"}
      stroke="var(--ink-3)"
    />
    <text x={x + 4} y="12" font-size="12" class="font-mono" fill="var(--ink-2)">{bar + 1}</text>
  {/each}
  {#each flags as { id, x, words } (id)}
    <path
      d="M{x + 0.5} {height}V23h12l-4 5l4 5h-12"
      fill="var(--paper)"
      stroke="var(--signal)"
      stroke-dasharray="3 2"
      data-waiting={words}
    />
  {/each}
  {#if session.transport.playing}
    <g bind:this={head}>
      <rect x="0" y="22" {width} {height} fill="var(--paper)" opacity="0.32" />
      <line x1="0" x2="0" y1="18" y2={height} stroke="var(--signal)" stroke-width="2.5" />
      <path d="M-6 14h12l-6 8z" fill="var(--signal)" />
    </g>
  {/if}
</svg>
