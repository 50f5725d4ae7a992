<!-- @component What a track played last as a loop in place of its pattern. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { counted } from "../../counted";
  import type { Track } from "../../api/types";
  import { getSession, getTakeDesk } from "../../state/context";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const desk = getTakeDesk();

  let bars = $state(4);
  let notes = $state(8);

  /** How long the loop is, in words. */
  const length = $derived(counted((track.loop?.length ?? 0) / session.bars.length, "bar"));

  function edit(): void {
    desk.open(-track.id);
    location.hash = "#takes";
  }
</script>

{#if track.loop}
  <p class="py-1">
    It plays a loop of {length} and
    {track.loop.notes?.length ?? 0} notes. The pattern goes on in silence.
  </p>
  <div class="flex gap-1 py-1">
    <button class="control" data-help="Edit the loop's notes on the roll." onclick={edit}
      >edit the loop</button
    >
    <button
      class="control"
      data-help="Clear the loop: the pattern plays again, where it would be by now."
      onclick={() => session.edit({ setLoop: { track: track.id } })}>clear</button
    >
  </div>
{/if}
<FieldRow label="last bars" help="Loop the last whole bars that the track played.">
  <NumberField
    label="Bars to loop"
    value={bars}
    {...bounds.LoopRequest.bars}
    min={1}
    width="3ch"
    commit={async (value) => {
      bars = value;
    }}
  />
  <button class="control" onclick={() => session.shelf.loopTrack({ track: track.id, bars })}
    >loop bars</button
  >
</FieldRow>
<FieldRow label="last notes" help="Loop the last notes that the track played, by 16ths.">
  <NumberField
    label="Notes to loop"
    value={notes}
    {...bounds.LoopRequest.notes}
    min={1}
    width="3ch"
    commit={async (value) => {
      notes = value;
    }}
  />
  <button class="control" onclick={() => session.shelf.loopTrack({ track: track.id, notes })}
    >loop notes</button
  >
</FieldRow>
