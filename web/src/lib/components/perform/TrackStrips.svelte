<!-- @component All tracks in groups of eight: one group is open, the others are folded into a line. -->
<script lang="ts">
  import { MediaQuery } from "svelte/reactivity";
  import { tabKeys } from "../../input/tabKeys";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";
  import StripRuler from "./StripRuler.svelte";
  import TrackStrip from "./TrackStrip.svelte";

  let { perform, height }: { perform: Perform; height: number } = $props();

  const session = getSession();
  const groupOf = 8;
  const ruler = 22;
  const fold = 30;
  /** As the strips' own breakpoint. */
  const narrow = new MediaQuery("(width < 1150px)");
  let opened = $state(0);
  let strips = $state(0);
  let inner = $state(0);

  const tracks = $derived(session.project.tracks);
  const groups = $derived(
    Array.from({ length: Math.ceil(tracks.length / groupOf) }, (_, i) => ({
      first: i * groupOf,
      tracks: tracks.slice(i * groupOf, (i + 1) * groupOf),
    })),
  );
  const open = $derived(Math.min(opened, groups.length - 1));
  const folded = $derived(groups.length > 1 ? fold : 0);
  const room = $derived((height - ruler - folded) / Math.max(1, groups[open]?.tracks.length ?? 1));
  const strip = $derived(Math.max(64, Math.min(180, Math.floor(room) - 1)));
  const head = $derived(narrow.current ? 250 : 320);
</script>

<div class="absolute inset-0 overflow-x-hidden overflow-y-auto">
  <div class="relative" bind:clientHeight={strips} bind:clientWidth={inner}>
    <div style:height="{ruler}px"></div>
    {#if groups.length > 1}
      <div
        class="border-line bg-paper relative z-10 flex border-b"
        role="tablist"
        aria-label="Groups of tracks"
        {@attach tabKeys}
        style:height="{fold}px"
      >
        {#each groups as group, i (group.first)}
          <button
            class={[
              "min-w-0 flex-1 cursor-pointer truncate border-b-2 px-3 text-left text-[12px] -outline-offset-2",
              i === open ? "border-b-signal font-semibold" : "text-ink-2 border-b-transparent",
            ]}
            role="tab"
            aria-selected={i === open}
            tabindex={i === open ? 0 : -1}
            data-help="Tracks {group.first + 1} to {group.first +
              group.tracks.length}: press to show them; the others are folded."
            onclick={() => (opened = i)}
            >{group.first + 1}–{group.first + group.tracks.length}
            {group.tracks.map(({ name }) => name).join(", ")}</button
          >
        {/each}
      </div>
    {/if}
    {#each groups[open]?.tracks ?? [] as track (track.id)}
      <TrackStrip {track} {perform} width={inner - head} height={strip} />
    {/each}
    <StripRuler {perform} width={inner - head} height={Math.max(strips, 1)} />
  </div>
</div>
