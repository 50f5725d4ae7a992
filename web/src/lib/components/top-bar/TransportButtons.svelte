<!-- @component Play and stop, record, and the position. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import Position from "./Position.svelte";

  const session = getSession();
  const playing = $derived(session.transport.playing);
  const recording = $derived(session.transport.recording);
</script>

<div class="flex items-center gap-1.5">
  <button
    class="border-ink bg-raised grid h-[34px] w-[38px] cursor-pointer place-items-center rounded border-2"
    aria-label={playing ? "Stop" : "Play"}
    data-help={playing ? "Stop, and release everything. Space" : "Play from bar 1. Space"}
    onclick={() => session.togglePlaying()}
  >
    <svg width="14" height="14" aria-hidden="true">
      <path d={playing ? "M1 1h12v12h-12z" : "M2 0l12 7l-12 7z"} fill="currentColor" />
    </svg>
  </button>
  <button
    class={[
      "grid h-[34px] w-[38px] cursor-pointer place-items-center rounded border-2",
      recording ? "bg-signal border-signal text-on-signal" : "border-ink bg-raised text-signal",
    ]}
    aria-label={recording ? "End recording" : "Record"}
    aria-pressed={recording}
    data-help={recording
      ? "End the take and play on. R"
      : "Record what is heard into a take; starts playing if need be. R"}
    onclick={() => session.toggleRecording()}
  >
    <svg width="14" height="14" aria-hidden="true"
      ><circle cx="7" cy="7" r="6" fill="currentColor" /></svg
    >
  </button>
  <Position />
</div>
