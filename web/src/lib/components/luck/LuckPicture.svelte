<!-- @component What a track plays in its first bars under a luck; what it does not play under another is marked blue. -->
<script lang="ts">
  import { getChart } from "../../api/chart";
  import type { Chart, HitNote } from "../../api/types";
  import { getSession } from "../../state/context";

  let { luck, against }: { luck: number; against: number } = $props();

  const session = getSession();
  const bars = 4;
  const height = 84;
  let width = $state(0);
  let mine = $state.raw<Chart>();
  let theirs = $state.raw<Chart>();

  $effect(() => {
    const { revision } = session.snapshot;
    const at = { track: session.track.id, from: 0, to: session.bars.start(bars) };
    if (revision === 0) return;
    const stale = new AbortController();
    getChart(at, stale.signal, luck)
      .then((chart) => (mine = chart))
      .catch(() => {}); // the chart of the project reports a server that is away
    getChart(at, stale.signal, against)
      .then((chart) => (theirs = chart))
      .catch(() => {});
    return () => stale.abort();
  });

  function notes(chart: Chart | undefined): HitNote[] {
    return (chart?.parts ?? [])
      .flatMap((part) => part.forecasts.filter((f) => f.sounds))
      .flatMap((forecast) => forecast.hits.filter((hit) => hit.sounds))
      .flatMap((hit) => hit.notes);
  }

  const others = $derived(new Set(notes(theirs).map((n) => `${n.start} ${n.key}`)));
  const drawn = $derived.by(() => {
    const list = notes(mine);
    const keys = [...list, ...notes(theirs)].map((f) => f.key);
    const [lowest, highest] = [Math.min(...keys), Math.max(...keys)];
    const scale = width / session.bars.start(bars);
    return list.map((f) => ({
      x: f.start * scale,
      y: 8 + ((highest - f.key) / Math.max(1, highest - lowest)) * (height - 22),
      width: Math.max(2, (f.end - f.start) * scale),
      only: !others.has(`${f.start} ${f.key}`),
    }));
  });
  const only = $derived(drawn.filter((note) => note.only).length);
</script>

<div class="bg-paper border-line border" bind:clientWidth={width}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-label="Luck {luck}: {drawn.length} notes, {only} of them only here"
  >
    {#each { length: bars }, i}
      <line
        x1={(i * width) / bars + 0.5}
        x2={(i * width) / bars + 0.5}
        y1="0"
        y2={height}
        stroke="var(--line)"
      />
    {/each}
    {#each drawn as note, i (i)}
      {#if note.only}
        <rect x={note.x - 2} y="0" width={note.width + 4} {height} fill="var(--water)" />
      {/if}
    {/each}
    {#each drawn as note, i (i)}
      <rect x={note.x} y={note.y} width={note.width} height="4" fill="var(--ink)" />
    {/each}
  </svg>
</div>
