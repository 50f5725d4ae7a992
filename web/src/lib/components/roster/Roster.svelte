<!-- @component The tracks of the project. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import RosterRow from "./RosterRow.svelte";

  const session = getSession();
</script>

<nav class="border-line bg-paper-2 min-h-0 overflow-y-auto border-r py-2" aria-label="Tracks">
  {#each session.project.tracks as track, i (track.id)}
    <RosterRow {track} number={i + 1} />
  {/each}
</nav>
