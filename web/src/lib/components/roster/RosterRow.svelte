<!-- @component A track: its name, its output, what silences it, and what its next two bars will be. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Outlines } from "../../state/outlines.svelte";
  import NextBars from "./NextBars.svelte";

  let { track, place, outlines }: { track: Track; place: number; outlines: Outlines } = $props();

  const session = getSession();
  const tracks = $derived(session.project.tracks);
  const selected = $derived(session.track.id === track.id);
  const stage = session.stage;
  /** Beyond eight tracks only the one that is written shows its next bars. */
  const compact = $derived(tracks.length > 8 && !selected);
  const silent = $derived(outlines.of(track.id)?.silent ?? false);
  const switches = [
    {
      letter: "M",
      label: "Mute",
      name: "mute",
      help: "Mute: the track decides all the same, so unmuting never changes the music. M",
    },
    {
      letter: "S",
      label: "Solo",
      name: "solo",
      help: "Solo: only tracks that are solo are heard. S",
    },
    {
      letter: "A",
      label: "Active",
      name: "active",
      help: "Active: pressed plays; else the track is out of the piece, whatever is muted or solo.",
    },
  ] as const;
</script>

{#snippet name()}
  <button
    class="flex min-w-0 flex-1 cursor-pointer gap-1.5 text-left"
    aria-current={selected ? "true" : undefined}
    data-help="Write this track. Page up and Page down go from track to track."
    title={track.name}
    onclick={() => session.selectTrack(track.id)}
  >
    <span class="text-ink-3 font-mono">{place + 1}</span>
    <span class={["min-w-0 flex-1 truncate", selected && "font-semibold"]}>{track.name}</span>
  </button>
{/snippet}
{#snippet buttons()}
  {#each switches as { letter, label, name, help } (name)}
    {@const control = { name, track: track.id }}
    <button
      class={[
        "control h-[20px]! min-w-[22px]! px-1! text-[11px]!",
        stage.isChanged(control) && "font-bold underline",
        stage.waiting(control) && "border-signal! border-dashed!",
      ]}
      aria-label="{label} {track.name}"
      aria-pressed={stage.trackOn(name, track)}
      data-help={help}
      onclick={() => stage.toggleTrack(name, track)}>{letter}</button
    >
  {/each}
{/snippet}

<div
  class={[
    "border-l-4 px-2 pt-1.5 pb-1",
    selected ? "border-signal bg-paper" : "border-transparent",
  ]}
  data-track={track.id}
>
  {#if compact}
    <div class="flex items-center gap-0.5">{@render name()}{@render buttons()}</div>
  {:else}
    <div class="flex">{@render name()}</div>
    <div class="flex items-center gap-0.5">
      <span class="caption min-w-0 flex-1 truncate"
        ><span class="max-[1150px]:hidden">{track.loop ? "loop" : track.kind} · </span>ch {track.channel}</span
      >
      {@render buttons()}
    </div>
    <NextBars {track} {outlines} {silent} />
  {/if}
  {#if selected}
    <div class="mt-1 flex gap-0.5">
      <button
        class="control h-[20px]! min-w-[22px]! px-1! text-[11px]!"
        aria-label="Move {track.name} up"
        data-help="Move the track up."
        disabled={place === 0}
        onclick={() => session.edit({ moveTrack: { track: track.id, to: place - 1 } })}>↑</button
      >
      <button
        class="control h-[20px]! min-w-[22px]! px-1! text-[11px]!"
        aria-label="Move {track.name} down"
        data-help="Move the track down."
        disabled={place === tracks.length - 1}
        onclick={() => session.edit({ moveTrack: { track: track.id, to: place + 1 } })}>↓</button
      >
      <button
        class="control h-[20px]! px-1! text-[11px]!"
        aria-label="Copy {track.name}"
        data-help="Copy the track; the copy comes last."
        disabled={tracks.length === 32}
        onclick={() => session.addTrack({ copy: track.id })}>copy</button
      >
      <button
        class="control h-[20px]! px-1! text-[11px]!"
        aria-label="Delete {track.name}"
        data-help="Delete the track. Undo brings it back."
        disabled={tracks.length === 1}
        onclick={() => session.edit({ removeTrack: { track: track.id } })}>delete</button
      >
    </div>
  {/if}
</div>
