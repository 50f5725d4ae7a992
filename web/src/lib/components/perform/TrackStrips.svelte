<!-- @component All tracks in groups of eight: one group is open, the others are folded to a line each. -->
<script lang="ts">
  import { MediaQuery } from "svelte/reactivity";
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
  const folded = $derived(groups.length > 1 ? fold * groups.length : 0);
  const room = $derived((height - ruler - folded) / Math.max(1, groups[open]?.tracks.length ?? 1));
  const strip = $derived(Math.max(70, Math.min(180, Math.floor(room) - 1)));
  const head = $derived(narrow.current ? 250 : 320);
</script>

<div class="absolute inset-0 overflow-x-hidden overflow-y-auto">
  <div class="relative" bind:clientHeight={strips} bind:clientWidth={inner}>
    <div style:height="{ruler}px"></div>
    {#each groups as group, i (group.first)}
      {#if groups.length > 1}
        <button
          class="border-line text-ink-2 hover:text-ink flex w-full cursor-pointer items-center gap-2 border-b px-3 text-left"
          style:height="{fold}px"
          aria-expanded={i === open}
          data-help="Tracks {group.first + 1} to {group.first +
            group.tracks.length}: press to show them; the others are folded."
          onclick={() => (opened = i)}
        >
          <span aria-hidden="true">{i === open ? "⌄" : "›"}</span>
          <span class="truncate"
            >{group.first + 1}–{group.first + group.tracks.length}
            {group.tracks.map(({ name }) => name).join(", ")}</span
          >
        </button>
      {/if}
      {#if i === open}
        {#each group.tracks as track (track.id)}
          <TrackStrip {track} {perform} width={inner - head} height={strip} />
        {/each}
      {/if}
    {/each}
    <StripRuler {perform} width={inner - head} height={Math.max(strips, 1)} />
  </div>
</div>
