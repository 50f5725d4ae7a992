<!-- @component The roll of a take: its tracks, its ruler, its notes, and a lane below them. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import RollLane from "./RollLane.svelte";
  import RollNotes from "./RollNotes.svelte";
  import RollRuler from "./RollRuler.svelte";
  import RollTracks from "./RollTracks.svelte";

  let { roll }: { roll: Roll } = $props();

  const desk = getTakeDesk();
  /** A roll shows two octaves at least, so that notes are not as high as doors. */
  const leastKeys = 24;

  let width = $state(0);
  let height = $state(0);

  const scale = $derived.by(() => {
    const missing = Math.max(2, leastKeys - (roll.highest - roll.lowest + 1));
    const lowest = Math.max(0, roll.lowest - Math.ceil(missing / 2));
    const highest = Math.min(127, roll.highest + Math.floor(missing / 2));
    return new RollScale(desk.from, desk.to, width, lowest, highest, height);
  });
</script>

<div class="grid min-h-0 min-w-0 grid-rows-[auto_auto_minmax(0,1fr)_112px]">
  <RollTracks {roll} />
  <div class="grid min-w-0 grid-cols-[44px_minmax(0,1fr)]">
    <span></span>
    <RollRuler {roll} {scale} />
  </div>
  <div
    class="grid min-h-0 min-w-0 grid-cols-[44px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)] overflow-hidden"
  >
    <svg width="44" {height} aria-hidden="true">
      {#each { length: scale.highest - scale.lowest + 1 }, i (i)}
        {@const key = scale.lowest + i}
        {#if key % 12 === 0}
          <text
            x="38"
            y={scale.y(key) + scale.row / 2 + 4}
            font-size="11"
            text-anchor="end"
            font-family="var(--font-mono)"
            fill="var(--ink-2)">C{key / 12 - 1}</text
          >
        {/if}
      {/each}
    </svg>
    <div class="min-h-0 min-w-0" bind:clientWidth={width} bind:clientHeight={height}>
      <RollNotes {roll} {scale} />
    </div>
  </div>
  <RollLane {roll} {scale} />
</div>
