<!-- @component Where a modulator of the track goes, below the ruler: ahead, as far as it is known. -->
<script lang="ts">
  import type { Modulator } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import { curvePath, type Curves } from "../../state/curves.svelte";
  import type { Movers } from "../../state/movers.svelte";

  interface Props {
    modulator: Modulator;
    movers: Movers;
    curves: Curves;
    /** The bars of the curves. */
    bar: number;
    bars: number;
  }
  let { modulator, movers, curves, bar, bars }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const height = 22;

  const levels = $derived(curves.levels(modulator.id));
  const perTick = $derived(view.width / (view.to - view.from));
  const x = $derived((session.bars.start(bar) - view.from) * perTick);
  const width = $derived((session.bars.start(bar + bars) - session.bars.start(bar)) * perTick);
  const amount = $derived(movers.effectiveAmount(modulator));
  const moves = $derived(
    modulator.moves
      .filter(({ control }) => !control.track || control.track === session.track.id)
      .map(({ control }) => movers.words(control))
      .join(", "),
  );
</script>

<div
  class="border-line col-span-2 flex min-w-0 items-baseline gap-1.5 overflow-clip border-t px-2 text-[11px]"
  data-help="Modulator “{modulator.name}”{moves &&
    `, which moves ${moves}`}: where it goes. It is written on Perform."
>
  <b class="truncate font-semibold">{modulator.name}</b>
  <span class="text-ink-2 ml-auto font-mono">{amount} %</span>
</div>
<svg
  width={view.width}
  {height}
  class="border-line block border-t"
  role="img"
  aria-label={levels.length > 0
    ? `Curve of ${modulator.name}`
    : `${modulator.name}: not known ahead`}
  data-levels={levels.length}
>
  <line
    x1="0"
    x2={view.width}
    y1={height / 2}
    y2={height / 2}
    stroke="var(--line)"
    stroke-dasharray="2 4"
  />
  {#if levels.length > 0}
    <path
      transform="translate({x} 0)"
      d={curvePath(levels, width, height)}
      fill="none"
      stroke={amount > 0 ? "var(--ink)" : "var(--ink-3)"}
      stroke-width="1.5"
    />
  {:else}
    <text x="8" y={height / 2 + 4} font-size="11" fill="var(--ink-2)">not known ahead</text>
  {/if}
</svg>
