<!-- @component The chart's border: beats in ink and paper by turns, bars by number. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";

  const session = getSession();
  const view = getChartView();
  const height = 36;

  const beatsPerBar = $derived(session.project.meter.beats);
  const beats = $derived(
    Array.from({ length: view.bars * beatsPerBar }, (_, i) => {
      const width = view.width / (view.bars * beatsPerBar);
      const firstBar = Math.round(view.from / session.bar);
      return {
        i,
        x: i * width,
        width,
        bar: firstBar + Math.floor(i / beatsPerBar) + 1,
        beat: (i % beatsPerBar) + 1,
      };
    }),
  );
</script>

<div class="bg-paper sticky top-0 z-10 min-w-0" bind:clientWidth={view.width}>
  <svg width={view.width} {height} class="block" aria-hidden="true">
    {#each beats as beat (beat.i)}
      <rect
        x={beat.x + 0.5}
        y={height - 9}
        width={Math.max(0, beat.width - (beat.i === beats.length - 1 ? 1 : 0))}
        height="7"
        fill={beat.i % 2 ? "var(--paper)" : "var(--ink)"}
        stroke="var(--ink)"
      />
      {#if beat.beat === 1}
        <text x={beat.x + 2} y={height - 14} font-size="15" font-weight="600" fill="var(--ink)"
          >{beat.bar}</text
        >
      {:else if beat.width > 24}
        <text
          x={beat.x + 2}
          y={height - 14}
          font-size="11"
          fill="var(--ink-3)"
          font-family="var(--font-mono)">·{beat.beat}</text
        >
      {/if}
    {/each}
  </svg>
</div>
