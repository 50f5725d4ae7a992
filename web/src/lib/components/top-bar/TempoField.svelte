<!-- @component The tempo: typed, dragged, stepped or tapped. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();

  /** Taps further apart than this begin anew, in milliseconds. */
  const pause = 1_500;
  let taps: number[] = [];

  function set(beatsPerMinute: number): Promise<void> {
    return session.edit({ setProject: { tempo: Math.round(beatsPerMinute * 1000) } });
  }

  /** From the second tap on each sets the tempo at once. */
  function tap(): void {
    const now = performance.now();
    taps = now - (taps.at(-1) ?? -Infinity) > pause ? [now] : [...taps, now].slice(-8);
    const [first] = taps;
    if (first === undefined || taps.length < 2) return;
    const beatsPerMinute = (60_000 * (taps.length - 1)) / (now - first);
    const tempo = Math.min(400, Math.max(10, Math.round(beatsPerMinute * 10) / 10));
    void session.run.press(() => set(tempo));
  }
</script>

<div>
  <div class="caption">tempo</div>
  <div class="flex gap-1">
    <NumberField
      label="Tempo in beats per minute"
      help="Tempo in quarter notes a minute: type, drag up and down, or use the arrow keys."
      value={session.project.tempo / 1000}
      min={10}
      max={400}
      decimals={2}
      width="6ch"
      commit={set}
    />
    <button
      class="control px-1!"
      data-help="Tap the tempo, twice or more. B"
      aria-label="Tap tempo"
      data-tap
      onclick={tap}>tap</button
    >
  </div>
</div>
