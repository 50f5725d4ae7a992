<!-- @component The chosen step and the track, as numbers and names. -->
<script lang="ts">
  import AddLane from "./AddLane.svelte";
  import StepFields from "./StepFields.svelte";
  import TimeFields from "./TimeFields.svelte";
  import TrackFields from "./TrackFields.svelte";
</script>

<aside class="border-line bg-paper-2 min-h-0 overflow-y-auto border-l px-3 py-2" aria-label="Sheet">
  <StepFields />
  <AddLane />
  <TrackFields />
  <TimeFields />
</aside>
