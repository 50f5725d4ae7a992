<!-- @component The tracks of a take: how their notes are drawn, which is worked on alone, and which are muted. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import { getTakeDesk } from "../../state/context";
  import { fills } from "./RollFills.svelte";

  let { roll }: { roll: Roll } = $props();

  const desk = getTakeDesk();
</script>

<div
  class="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1"
  aria-label="Tracks of the take"
>
  {#each roll.tracks as track, i (track.id)}
    {#if track.notes}
      <span class="flex items-center gap-1">
        <button
          class={["control h-[22px]! text-[12px]!", track.mute && "line-through"]}
          aria-pressed={desk.track === track.id}
          data-help="Work on this track alone; press again for all."
          onclick={() => desk.selectTrack(track.id)}
        >
          <svg width="18" height="9" aria-hidden="true"
            ><rect
              x="0.5"
              y="0.5"
              width="17"
              height="8"
              fill={fills[i % fills.length]}
              stroke="var(--ink)"
            /></svg
          >
          <span class="max-w-[150px] truncate">{track.name}</span>
        </button>
        {#if !desk.loop}<button
            class="control h-[22px]! min-w-[22px]! px-1! text-[11px]!"
            aria-label="Mute {track.name} in the take"
            aria-pressed={track.mute ?? false}
            data-help="Mute the track in this take: it is not played and not exported."
            onclick={() => desk.edit({ setTrack: { track: track.id, mute: !track.mute } })}
            >M</button
          >{/if}
      </span>
    {/if}
  {/each}
  {#if roll.crowded}
    <span class="caption">more notes than can be drawn: show fewer bars</span>
  {/if}
</div>
