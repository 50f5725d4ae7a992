<!-- @component The tempo: typed, dragged, stepped or tapped. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();

  /** Taps further apart than this begin anew; after as long a silence the tempo is taken. */
  const pause = 1_500;
  let taps: number[] = [];
  let tapped = $state<number>();
  let silence: ReturnType<typeof setTimeout> | undefined;

  function set(beatsPerMinute: number): Promise<void> {
    return session.edit({ setProject: { tempo: Math.round(beatsPerMinute * 1000) } });
  }

  function tap(): void {
    clearTimeout(silence);
    taps = [...taps, performance.now()].slice(-8);
    const [first, last] = [taps[0] ?? 0, taps.at(-1) ?? 0];
    if (taps.length > 1) {
      const beatsPerMinute = (60_000 * (taps.length - 1)) / (last - first);
      tapped = Math.min(400, Math.max(10, Math.round(beatsPerMinute * 10) / 10));
    }
    silence = setTimeout(() => {
      if (tapped !== undefined) void set(tapped);
      taps = [];
      tapped = undefined;
    }, pause);
  }
</script>

<div>
  <div class="caption">tempo</div>
  <div class="flex gap-1">
    <NumberField
      label="Tempo in beats per minute"
      help="Tempo in quarter notes a minute: type, drag up and down, or use the arrow keys."
      value={tapped ?? session.project.tempo / 1000}
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
