<!-- @component The screen on which the machine is played: the song, scenes, and a strip of time for each track. -->
<script lang="ts">
  import { isTyping } from "../lib/state/focus";
  import { getPlaying, getSession } from "../lib/state/context";
  import { Perform } from "../lib/state/perform.svelte";
  import { performKeys } from "../lib/state/performKeys";
  import ArrangeSheet from "../lib/components/perform/ArrangeSheet.svelte";
  import CurveStrips from "../lib/components/perform/CurveStrips.svelte";
  import HandBar from "../lib/components/perform/HandBar.svelte";
  import LayerHands from "../lib/components/perform/LayerHands.svelte";
  import LoopSteps from "../lib/components/perform/LoopSteps.svelte";
  import MacroLine from "../lib/components/perform/MacroLine.svelte";
  import MoverSheet from "../lib/components/perform/MoverSheet.svelte";
  import SceneLine from "../lib/components/perform/SceneLine.svelte";
  import SongLine from "../lib/components/perform/SongLine.svelte";
  import TempoHands from "../lib/components/perform/TempoHands.svelte";
  import TransposeKeys from "../lib/components/perform/TransposeKeys.svelte";
  import TrackStrips from "../lib/components/perform/TrackStrips.svelte";

  const session = getSession();
  const playing = getPlaying();
  const perform = new Perform(session);

  function handle(event: KeyboardEvent, up: boolean): void {
    if (
      (playing.open && playing.computerKeys) ||
      isTyping(event.target) ||
      document.querySelector("dialog[open]")
    )
      return;
    if (performKeys(event, up, perform, session)) {
      event.preventDefault();
      event.stopImmediatePropagation();
    }
  }
  let height = $state(0);
</script>

<svelte:window
  onkeydowncapture={(event) => handle(event, false)}
  onkeyupcapture={(event) => handle(event, true)}
  onblur={() => perform.releaseAll()}
/>

<main
  class={[
    "grid min-h-0",
    perform.arranging || perform.moving
      ? "grid-cols-[minmax(0,1fr)_280px]"
      : "grid-cols-[minmax(0,1fr)]",
  ]}
>
  <h1 class="sr-only">Perform</h1>
  <div class="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
    <div data-area class="border-line flex gap-2 border-b px-3 pt-1 pb-1.5">
      <div class="flex w-[76px] shrink-0 flex-col gap-1">
        <button
          class="control h-[44px]! w-full text-[12px]!"
          aria-pressed={session.song.playsSong}
          disabled={(session.project.song ?? []).length === 0}
          data-help="Song: Play plays the sections one after the other; while playing it begins, or is left, with the next bar. Else the tracks play on as they are written."
          onclick={() => session.song.setPlaysSong(!session.song.playsSong)}>song</button
        >
        <button
          class="control h-[44px]! w-full text-[12px]!"
          aria-pressed={perform.arranging}
          data-help="Arrange: write the song and its scenes; a press on one of them selects it instead of playing it."
          onclick={() => (perform.arranging = !perform.arranging)}>arrange</button
        >
      </div>
      <div class="flex min-w-0 flex-1 flex-col gap-1">
        <SongLine {perform} />
        <SceneLine {perform} />
      </div>
    </div>
    <div data-area class="relative min-h-0 min-w-0" bind:clientHeight={height}>
      <TrackStrips {perform} {height} />
    </div>
    <div data-area>
      {#if perform.movers.modulators.length > 0}<CurveStrips {perform} />{/if}
      {#if perform.movers.macros.length > 0}<MacroLine {perform} />{/if}
      {#if perform.timing}<TempoHands />{/if}
      {#if perform.looping}<LoopSteps {perform} />{/if}
      {#if perform.layering}<LayerHands />{/if}
      {#if perform.transposing}<TransposeKeys {perform} />{/if}
      <HandBar {perform} />
    </div>
  </div>
  {#if perform.moving}<MoverSheet {perform} />{:else if perform.arranging}<ArrangeSheet
      {perform}
    />{/if}
</main>
