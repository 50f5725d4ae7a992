<!-- @component A track: its name, its output, mute, and what its next two bars will be. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import NextBars from "./NextBars.svelte";

  let { track, number }: { track: Track; number: number } = $props();

  const session = getSession();
  const chosen = $derived(session.track.id === track.id);
</script>

<div class={["border-l-4 px-2 py-2", chosen ? "border-signal bg-paper" : "border-transparent"]}>
  <div class="flex items-start gap-1">
    <button
      class="min-w-0 flex-1 cursor-pointer text-left"
      aria-current={chosen ? "true" : undefined}
      data-help="Write this track."
      onclick={() => session.chooseTrack(track.id)}
    >
      <span class="block truncate"
        ><span class="text-ink-3 font-mono">{number}</span> {track.name}</span
      >
      <span class="caption block truncate">built-in bell · ch {track.channel}</span>
    </button>
    <button
      class="control h-[22px]! min-w-[22px]! px-1! text-[11px]!"
      aria-label="Mute {track.name}"
      aria-pressed={track.mute}
      data-help="Mute: the track decides all the same, so unmuting never changes the music. M"
      onclick={() => session.edit({ setTrack: { track: track.id, mute: !track.mute } })}>M</button
    >
  </div>
  <NextBars {track} />
</div>
