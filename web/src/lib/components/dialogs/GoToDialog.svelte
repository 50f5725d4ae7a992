<!-- @component A list of the lanes and the tracks to go to: by its first letters, by arrows, by a press. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const view = getChartView();
  const lanes = $derived(session.lanes.map(({ name, label }) => ({ go: name, label })));
  const tracks = $derived(session.project.tracks.filter(({ id }) => id !== session.track.id));

  async function goTo(list: HTMLSelectElement): Promise<void> {
    const lane = lanes[list.selectedIndex];
    const track = tracks[list.selectedIndex - lanes.length];
    const dialog = list.closest("dialog");
    open = false;
    // Once it is closed it gives the focus back.
    while (dialog?.open) await new Promise(requestAnimationFrame);
    if (track) session.selectTrack(track.id);
    if (lane) view.focusLane(lane.go);
  }

  function focused(list: HTMLSelectElement): void {
    list.focus();
  }
</script>

<Dialog bind:open title="Go to">
  <select
    class="control h-auto! w-full"
    size={Math.min(16, lanes.length + tracks.length)}
    aria-label="Go to"
    use:focused
    onkeydown={(event) => {
      if (event.key !== "Enter") return;
      event.preventDefault();
      void goTo(event.currentTarget);
    }}
    ondblclick={(event) => goTo(event.currentTarget)}
  >
    {#each lanes as { go, label }, i (go)}
      <option value={go} selected={i === 0}>{label}</option>
    {/each}
    {#each tracks as track (track.id)}
      <option value="track {track.id}">{track.name}</option>
    {/each}
  </select>
  <p class="text-ink-2">Type the first letters of a lane or a track, then press Enter.</p>
</Dialog>
