<!--
@component
Beats in ink and paper by turns, bars by number, and diamonds where loops begin together: a part of the ruler's svg.
-->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";

  let { height }: { height: number } = $props();

  const session = getSession();
  const view = getChartView();

  /** The beats, in ink and paper by turns; where beats are grouped the groups are. */
  const beats = $derived.by(() => {
    const scale = view.width / (view.to - view.from);
    const beats = session.bars.beats(view.from, view.to);
    let ink = true;
    return beats.map(({ tick, bar, beat, group }, i) => {
      const grouped = (session.bars.meter(bar).groups ?? []).length > 0;
      if (i > 0 && (!grouped || group)) ink = !ink;
      return {
        i,
        x: (tick - view.from) * scale,
        width: ((beats[i + 1]?.tick ?? view.to) - tick) * scale,
        bar: bar + 1,
        beat: beat + 1,
        ink,
      };
    });
  });

  /** Where all lanes begin together again, and where the cursor's lane does with the gate. */
  const meetings = $derived.by(() => {
    const lane = view.chartPart?.lanes.find((l) => l.lane === view.cursor.lane);
    const all = view.chart?.period.ticks ?? 0;
    const pair = view.cursor.lane === gateLane ? 0 : (lane?.meetsGate.ticks ?? 0);
    return [
      ...marks(pair).map((x) => ({ x, all: false })),
      ...marks(all).map((x) => ({ x, all: true })),
    ];
  });

  /** The places of all multiples of a period, if they are not too close to tell apart. */
  function marks(period: number): number[] {
    const scale = view.width / (view.to - view.from);
    if (period * scale < 12) return [];
    const first = Math.ceil(view.from / period);
    const count = Math.ceil(view.to / period) - first;
    return Array.from(
      { length: Math.max(0, count) },
      (_, i) => ((first + i) * period - view.from) * scale,
    );
  }
</script>

{#each meetings as { x, all }, i (i)}
  <path
    d="M{x} {height - 22}l4.5 5.5l-4.5 5.5l-4.5 -5.5z"
    fill={all ? "var(--signal)" : "var(--paper)"}
    stroke="var(--signal)"
    data-meeting={all ? "all" : "gate"}
  />
{/each}
{#each beats as beat (beat.i)}
  <rect
    x={beat.x + 0.5}
    y={height - 9}
    width={Math.max(0, beat.width - (beat.i === beats.length - 1 ? 1 : 0))}
    height="7"
    fill={beat.ink ? "var(--ink)" : "var(--paper)"}
    stroke="var(--ink)"
  />
  {#if beat.beat === 1}
    <text x={beat.x + 8} y={height - 14} font-size="15" font-weight="600" fill="var(--ink)"
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
