<!-- @component The roll of a take: its tracks, its ruler, its notes, and a lane below them. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import RollActions from "./RollActions.svelte";
  import RollKeys from "./RollKeys.svelte";
  import RollLane from "./RollLane.svelte";
  import RollNotes from "./RollNotes.svelte";
  import RollRuler from "./RollRuler.svelte";
  import RollTracks from "./RollTracks.svelte";

  let { roll }: { roll: Roll } = $props();

  const desk = getTakeDesk();
  /** How wide the edge is on which the rows are named: names of parts take more room. */
  const edge = $derived(roll.tracks.some((track) => track.kit) ? 84 : 44);

  let width = $state(0);
  let height = $state(0);

  const scale = $derived(
    new RollScale(desk.from, desk.to, width, desk.keys.lowest, desk.keys.highest, height),
  );
</script>

<div class="grid min-h-0 min-w-0 grid-rows-[auto_auto_minmax(0,1fr)_112px]">
  <RollTracks {roll} />
  <div class="grid min-w-0" style:grid-template-columns="{edge}px minmax(0, 1fr)">
    <span></span>
    <RollRuler {roll} {scale} />
    {#if desk.actions.all.length > 0}
      <span class="caption self-center truncate pl-1" title="performed">actions</span>
      <RollActions {roll} {scale} />
    {/if}
  </div>
  <div
    class="grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)] overflow-hidden"
    style:grid-template-columns="{edge}px minmax(0, 1fr)"
  >
    <RollKeys {roll} {scale} width={edge} />
    <div class="min-h-0 min-w-0" bind:clientWidth={width} bind:clientHeight={height}>
      <RollNotes {roll} {scale} />
    </div>
  </div>
  <RollLane {roll} {scale} {edge} />
</div>
