<!--
@component
How likely each number is that a spread adds, as bars of water, and how often it really was added in the
bars before now, as ink. The ends can be pulled, and the lean by dragging between them.
-->
<script lang="ts">
  import type { LaneName, Spread } from "../../api/types";
  import { SpreadPull } from "../../chart/spreadPull.svelte";
  import { oneFinger } from "../../oneFinger";
  import { getSession } from "../../state/context";
  import { SpreadDraws } from "../../state/spreadDraws.svelte";

  interface Props {
    name: LaneName;
    /** A step at which the spread is in force. */
    step: number;
    /** The spread, its ends as what they add. */
    spread: Spread;
    /** How far the spread can reach. */
    widest: number;
    /** What an addition leads to, in a few characters. */
    label: (added: number) => string;
    set: (change: Partial<Spread>) => Promise<void>;
  }
  let { name, step, spread, widest, label, set }: Props = $props();

  const recent = new SpreadDraws(getSession(), () => ({ lane: name, step }));
  const draws = $derived(recent.draws);
  const height = 74;
  const base = height - 14;
  let width = $state(0);
  const pull = new SpreadPull();

  const ends = $derived({ ...spread, ...pull.change });
  /** The numbers that the picture reaches to, with room to pull the ends. */
  const reach = $derived.by(() => {
    const far = Math.max(Math.abs(spread.lowest), Math.abs(spread.highest), 2);
    return Math.min(widest, Math.ceil(far * 1.4));
  });
  const slot = $derived(width / (2 * reach + 1));
  const heard = $derived.by(() => {
    const counts: Record<number, number> = {};
    for (const added of draws?.drawn ?? []) counts[added] = (counts[added] ?? 0) + 1;
    const total = draws?.drawn.length ?? 0;
    return Object.entries(counts).map(([added, count]) => ({
      added: Number(added),
      share: count / total,
    }));
  });

  const most = $derived(
    Math.max(0.001, ...[...(draws?.shares ?? []), ...heard].map((s) => s.share)),
  );

  function x(added: number): number {
    return (added + reach) * slot;
  }

  function tall(share: number): number {
    return Math.min(base - 2, (share / most) * (base - 12));
  }

  /** Where the pointer is, in numbers that a spread adds. */
  function pointed(event: PointerEvent & { currentTarget: HTMLElement }): number {
    return (event.clientX - event.currentTarget.getBoundingClientRect().left) / slot - 0.5 - reach;
  }

  function begin(event: PointerEvent & { currentTarget: HTMLElement }): void {
    event.currentTarget.setPointerCapture(event.pointerId);
    pull.begin(pointed(event), Math.max(8 / slot, 1), spread);
    move(event);
  }

  function move(event: PointerEvent & { currentTarget: HTMLElement }): void {
    pull.move(pointed(event), spread, widest);
  }

  async function end(): Promise<void> {
    await pull.end(spread, set);
  }
</script>

<div
  class="bg-paper border-line touch-none border"
  bind:clientWidth={width}
  data-help="Water: how likely each addition is. Ink: how often it came in {draws?.drawn.length ??
    0} notes. Pull the ends; drag between them to lean."
  role="img"
  aria-label="Density of the spread of {name}: {draws?.drawn.length ?? 0} notes"
  {@attach oneFinger}
  onpointerdown={begin}
  onpointermove={move}
  onpointerup={end}
  onpointercancel={() => pull.cancel()}
>
  <svg {width} {height} class="block" aria-hidden="true">
    {#each draws?.shares ?? [] as { added, share } (added)}
      <rect
        x={x(added)}
        y={base - tall(share)}
        width={Math.max(1, slot - 0.5)}
        height={tall(share)}
        fill="var(--water)"
        stroke="var(--ink-3)"
        stroke-width="0.5"
      />
    {/each}
    {#each heard as { added, share } (added)}
      <rect
        x={x(added) + slot * 0.3}
        y={base - tall(share)}
        width={Math.max(1.2, slot * 0.4)}
        height={tall(share)}
        fill="var(--ink)"
        opacity="0.75"
        data-drawn={added}
      />
    {/each}
    <line x1="0" x2={width} y1={base} y2={base} stroke="var(--ink)" />
    <line x1={x(0) + slot / 2} x2={x(0) + slot / 2} y1={base} y2={base + 4} stroke="var(--ink)" />
    {#each [ends.lowest, ends.highest] as added, i (i)}
      <path
        d="M{x(added) + slot / 2 - 5} {base + 1}h10l-5 -7z"
        fill="var(--signal)"
        class="cursor-ew-resize"
      />
    {/each}
    {#each [-reach, 0, reach] as added (added)}
      <text
        x={Math.min(width - 2, Math.max(2, x(added) + slot / 2))}
        y={height - 2}
        font-size="11"
        text-anchor={added < 0 ? "start" : added > 0 ? "end" : "middle"}
        fill="var(--ink-2)">{label(added)}</text
      >
    {/each}
    {#if pull.words}
      <text x={width / 2} y="11" font-size="11" text-anchor="middle" fill="var(--ink)"
        >{pull.words}</text
      >
    {/if}
  </svg>
</div>
