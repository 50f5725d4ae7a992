<!-- @component What a track will play in two bars: those that come while playing, else the first two. -->
<script lang="ts">
  import { getChart } from "../../api/chart";
  import type { Chart, Track } from "../../api/types";
  import { getSession } from "../../state/context";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const height = 26;
  const bars = 2;

  let width = $state(0);
  let chart = $state.raw<Chart>();
  const standing = $derived(session.places.of(track.id, "gate"));
  const from = $derived(Math.floor((standing?.tick ?? 0) / session.bar) * session.bar);

  $effect(() => {
    const { revision } = session.snapshot;
    if (revision === 0) return;
    const stale = new AbortController();
    getChart(track.id, 0, from, from + bars * session.bar, stale.signal)
      .then((answer) => (chart = answer))
      // The chart of the chosen track reports it if the server is away; here the old picture stays.
      .catch(() => {});
    return () => stale.abort();
  });

  const notes = $derived.by(() => {
    if (!chart) return [];
    const { from, to } = chart;
    const scale = width / (to - from);
    const keys = chart.forecasts.map((f) => f.key);
    const [lowest, highest] = [Math.min(...keys), Math.max(...keys)];
    return chart.forecasts
      .filter((f) => f.sounds)
      .map((f) => ({
        x: (f.tick - from) * scale,
        y: 4 + ((highest - f.key) / Math.max(1, highest - lowest)) * (height - 11),
        width: Math.max(2, (f.end - f.tick) * scale),
        tick: f.tick,
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
    {#each notes as note (note.tick)}
      <rect
        x={note.x}
        y={note.y}
        width={note.width}
        height="2.6"
        fill="var(--ink)"
        opacity={track.mute ? 0.3 : 1}
      />
    {/each}
  </svg>
</div>
