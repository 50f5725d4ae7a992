<!--
@component
The chart's border: beats in ink and paper by turns, bars by number. A press sets the bar from which to play, dragging
over bars the range that is looped.
-->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";
  import WaitingFlags from "./WaitingFlags.svelte";

  const session = getSession();
  const view = getChartView();
  const height = 36;

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

  const song = $derived(session.song);
  /** The bars that are dragged over. */
  let dragged = $state<{ first: number; last: number }>();

  const looped = $derived.by(() => {
    if (dragged && dragged.first !== dragged.last) {
      const [a, b] = [dragged.first, dragged.last].sort((x, y) => x - y) as [number, number];
      return { from: a + 1, bars: b - a + 1 };
    }
    return song.loop;
  });

  /** Where a bar, from 1, begins on the screen. */
  function xOf(bar: number): number {
    return ((session.bars.start(bar - 1) - view.from) * view.width) / (view.to - view.from);
  }

  function barAt(event: PointerEvent & { currentTarget: HTMLElement }): number {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().x;
    return session.bars.at(
      view.from + (Math.min(view.width - 1, Math.max(0, x)) * (view.to - view.from)) / view.width,
    );
  }

  function onpointerdown(event: PointerEvent & { currentTarget: HTMLElement }): void {
    event.currentTarget.setPointerCapture(event.pointerId);
    const bar = barAt(event);
    dragged = { first: bar, last: bar };
  }

  function onpointermove(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (dragged) dragged = { first: dragged.first, last: barAt(event) };
  }

  async function onpointerup(): Promise<void> {
    if (!dragged) return;
    const { first, last } = dragged;
    song.bar = Math.min(first, last) + 1;
    if (first !== last && looped) await song.setLoop(looped);
    dragged = undefined;
  }

  function onkeydown(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined && event.shiftKey) void song.stretchLoop(by);
    else if (by !== undefined) song.bar += by;
    else if (event.key === "Enter") void song.jumpOrPlay();
    else if (event.key === "Delete" || event.key === "Backspace") void song.setLoop(undefined);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

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

<div
  class="bg-paper sticky top-0 z-10 min-w-0 cursor-pointer touch-none select-none"
  role="slider"
  tabindex="0"
  aria-label="Bar from which to play"
  aria-valuemin="1"
  aria-valuemax="10000"
  aria-valuenow={song.bar}
  aria-valuetext={song.loop
    ? `bar ${song.bar}; bars ${song.loop.from} to ${song.loop.from + song.loop.bars - 1} are looped`
    : `bar ${song.bar}`}
  data-help="Press a bar to play from it, twice (or Enter) to go there now; drag over bars, or Shift+arrows, to loop them. A full diamond: all lanes begin together. An open one: the cursor's lane begins with the gate."
  bind:clientWidth={view.width}
  {onpointerdown}
  {onpointermove}
  {onpointerup}
  onpointercancel={() => (dragged = undefined)}
  ondblclick={() => song.jumpOrPlay()}
  {onkeydown}
>
  <svg width={view.width} {height} class="block" aria-hidden="true">
    {#if looped}
      <rect
        x={xOf(looped.from)}
        width={Math.max(0, xOf(looped.from + looped.bars) - xOf(looped.from))}
        height={height - 9}
        fill="var(--lamp-soft)"
        data-looped
      />
    {/if}
    {#if song.bar > 1}
      <path d="M{xOf(song.bar) + 1} {height - 9}v-9l7 4.5z" fill="var(--ink)" data-start />
    {/if}
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
    <WaitingFlags {height} />
  </svg>
</div>
