<!-- @component Where modulators go, on the same bars as the tracks: what has gone by in ink, what is to come lighter, as far as it is known. -->
<script lang="ts">
  import { MediaQuery } from "svelte/reactivity";
  import { getSession } from "../../state/context";
  import { curvePath } from "../../state/curves.svelte";
  import type { Perform } from "../../state/perform.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const high = 30;
  const narrow = new MediaQuery("(width < 1150px)");
  const head = $derived(narrow.current ? 250 : 320);
  let width = $state(0);
  const room = $derived(Math.max(0, width - head));

  const bars = $derived(
    Array.from({ length: 8 }, (_, i) => {
      const at = session.bars.start(perform.bar + i);
      return ((at - perform.from) / Math.max(1, perform.to - perform.from)) * room;
    }),
  );
</script>

<div
  class="border-line max-h-[124px] overflow-y-auto border-t"
  role="group"
  aria-label="Modulators"
  bind:clientWidth={width}
>
  {#each perform.movers.modulators as modulator (modulator.id)}
    {@const levels = perform.curves.levels(modulator.id)}
    <div class="flex items-center" style:height="{high + 1}px">
      <button
        class="flex min-w-0 cursor-pointer items-center gap-2 px-3 text-left text-[12px]"
        style:width="{head}px"
        data-help="Modulator “{modulator.name}” moves {modulator.moves
          .map(({ control }) => perform.movers.words(control))
          .join(', ') || 'nothing yet'}. Press to change it."
        onclick={() => {
          perform.moving = true;
          perform.moverPage = "modulator";
          perform.modulator = modulator.id;
        }}
        ><b class="truncate font-semibold">{modulator.name}</b>
        <span class="text-ink-2 truncate text-[11px]">{modulator.shape}</span>
        <span class="ml-auto font-mono text-[11px]"
          >{perform.movers.effectiveAmount(modulator)} %</span
        ></button
      >
      <svg
        width={room}
        height={high}
        role="img"
        aria-label={levels.length > 0
          ? `Curve of ${modulator.name}`
          : `${modulator.name}: not known ahead`}
        data-levels={levels.length}
      >
        {#each bars as x, i (i)}<line
            x1={x + 0.5}
            x2={x + 0.5}
            y1="0"
            y2={high}
            stroke="var(--line)"
          />{/each}
        <line
          x1="0"
          x2={room}
          y1={high / 2}
          y2={high / 2}
          stroke="var(--line)"
          stroke-dasharray="2 4"
        />
        {#if levels.length > 0}
          <path
            d={curvePath(levels, room, high)}
            fill="none"
            stroke={perform.movers.effectiveAmount(modulator) > 0 ? "var(--ink)" : "var(--ink-3)"}
            stroke-width="1.5"
          />
        {:else}
          <text x="8" y={high / 2 + 4} font-size="11" fill="var(--ink-2)"
            >follows what comes in; not known ahead</text
          >
        {/if}
      </svg>
    </div>
  {/each}
</div>
