<!-- @component The tracks of the project. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { Outlines } from "../../state/outlines.svelte";
  import RosterRow from "./RosterRow.svelte";

  const session = getSession();
  const outlines = new Outlines(session);
  const full = $derived(session.project.tracks.length === 32);
</script>

<nav data-area class="border-line bg-paper-2 flex min-h-0 flex-col border-r" aria-label="Tracks">
  <div class="min-h-0 flex-1 overflow-y-auto py-1">
    {#each session.project.tracks as track, i (track.id)}
      <RosterRow {track} place={i} {outlines} />
    {/each}
  </div>
  <div class="border-line flex gap-1 border-t p-2">
    <button
      class="control flex-1"
      disabled={full}
      data-help="Add a track that plays pitches. Undo takes it away again."
      onclick={() => session.addTrack({ kind: "melodic" })}>+ track</button
    >
    <button
      class="control flex-1"
      disabled={full}
      data-help="Add a kit, whose parts each play a note of their own. Undo takes it away again."
      onclick={() => session.addTrack({ kind: "kit" })}>+ kit</button
    >
    <button
      class="control flex-1"
      disabled={full}
      data-help="Add a field: a grid of notes over which travellers move. Undo takes it away again."
      onclick={() => session.addTrack({ kind: "field" })}>+ field</button
    >
  </div>
</nav>
