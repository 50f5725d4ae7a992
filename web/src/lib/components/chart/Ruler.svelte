<!--
@component
The chart's border: beats in ink and paper by turns, bars by number. A press sets the bar from which to play, dragging
over bars the range that is looped.
-->
<script lang="ts">
  import { oneFinger } from "../../oneFinger";
  import { getChartView, getSession } from "../../state/context";
  import RulerBeats from "./RulerBeats.svelte";
  import WaitingFlags from "./WaitingFlags.svelte";

  const session = getSession();
  const view = getChartView();
  const height = 36;

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
  {@attach oneFinger}
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
    <RulerBeats {height} />
    <WaitingFlags {height} />
  </svg>
</div>
