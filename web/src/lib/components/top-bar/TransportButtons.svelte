<!-- @component Play and stop, record, and the position. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import type { DialogName } from "../dialogs/names";
  import Position from "./Position.svelte";

  let { open }: { open: (dialog: DialogName) => void } = $props();

  const session = getSession();
  /** Whether something plays, or waits for another machine's start. */
  const playing = $derived(session.transport.playing || session.transport.waits);
  const armed = $derived(session.transport.armed);
  const recording = $derived(session.transport.recording || armed);
  const options = $derived(session.song.recordOptions);
  const planned = $derived(options.countIn + options.from + options.bars > 0);
</script>

<div class="flex items-center gap-1.5 max-[1150px]:gap-0.5">
  <button
    class="border-ink bg-raised grid h-[34px] w-[38px] cursor-pointer place-items-center rounded border-2 max-[1150px]:w-[32px]"
    aria-label={playing ? "Stop" : "Play"}
    data-help={playing
      ? session.transport.playing
        ? "Stop, and release everything. Space"
        : "Wait no more for the start of the other machine. Space"
      : `Play from bar ${session.song.bar}. Space; Shift+Space goes on where it stopped.`}
    onclick={() => session.song.togglePlaying()}
  >
    <svg width="14" height="14" aria-hidden="true">
      <path d={playing ? "M1 1h12v12h-12z" : "M2 0l12 7l-12 7z"} fill="currentColor" />
    </svg>
  </button>
  <button
    class={[
      "grid h-[34px] w-[38px] cursor-pointer place-items-center rounded border-2 max-[1150px]:w-[32px]",
      recording ? "bg-signal border-signal text-on-signal" : "border-ink bg-raised text-signal",
      armed && "opacity-60",
    ]}
    aria-label={recording ? "End recording" : "Record"}
    data-help={recording
      ? "End the take and play on. R"
      : "Record what is heard into a take; starts playing if need be. R"}
    onclick={() => session.song.toggleRecording()}
  >
    <svg width="14" height="14" aria-hidden="true"
      ><circle cx="7" cy="7" r="6" fill="currentColor" /></svg
    >
  </button>
  <button
    class="control h-[34px]! min-w-[20px]! px-0.5!"
    aria-label="What to record"
    aria-pressed={planned}
    data-help="What to record: count-in, from which bar, how many bars, and again and again."
    onclick={() => open("record")}
  >
    <svg width="10" height="14" aria-hidden="true"
      ><path d="M2 3h6M2 7h6M2 11h6" stroke="currentColor" stroke-width="1.5" /></svg
    >
  </button>
  <Position />
</div>
