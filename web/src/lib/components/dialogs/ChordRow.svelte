<!-- @component A chord of a map: how it lies, how long it lasts in time, and a press to hear it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { MapChord } from "../../api/types";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    chord: MapChord;
    /** Its place in the map, from 0. */
    number: number;
    name: string;
    /** Its keys as they lie in the map, and their names. */
    keys: readonly number[];
    notes: readonly string[];
    hear: (keys: readonly number[]) => void;
    /** Changes the chord, or without a change removes it. */
    change: (to: Partial<MapChord> | undefined) => Promise<void>;
  }
  let { chord, number, name, keys, notes, hear, change }: Props = $props();

  const usualBeats = 4;
</script>

<li class="border-line flex flex-wrap items-center gap-1.5 border-b pb-1">
  <span class="text-ink-2 w-6 text-right font-mono">{number}</span>
  <button
    class="control w-[110px]"
    aria-label="Hear chord {number}, {name}"
    onclick={() => hear(keys)}>{name || "empty"}</button
  >
  <span class="text-ink-2 min-w-[130px] flex-1 text-[12px]">{notes.join(" ") || "silent"}</span>
  <button
    class="control"
    aria-label="Invert chord {number}"
    onclick={() =>
      change({
        inversion: ((chord.inversion ?? 0) + 1) % Math.max(1, Math.min(5, keys.length)),
      })}>inversion {chord.inversion ?? 0}</button
  >
  <button
    class="control"
    aria-label="Open chord {number}"
    aria-pressed={chord.open ?? false}
    onclick={() => change({ open: !chord.open })}>open</button
  >
  <label class="text-ink-2 flex items-center gap-1 text-[12px]"
    ><NumberField
      label="Beats of chord {number}"
      help="How many quarter notes it lasts where time calls the chords."
      value={chord.beats || usualBeats}
      min={1}
      max={bounds.MapChord.beats.max}
      usual={usualBeats}
      commit={(beats) => change({ beats })}
    />beats</label
  >
  <button class="control" aria-label="Remove chord {number}" onclick={() => change(undefined)}
    >×</button
  >
</li>
