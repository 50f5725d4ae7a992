<!-- @component Where the keys of the keyboard are: octaves and semitones lower or higher. -->
<script lang="ts">
  import { getPlaying } from "../../state/context";

  const playing = getPlaying();
  const shifts: { of: string; by: number; help: string }[] = [
    {
      of: "octave",
      by: 12,
      help: "The keyboard an octave lower or higher. Z and X, while the computer's keys play",
    },
    { of: "semitone", by: 1, help: "The keyboard a semitone lower or higher." },
  ];
</script>

{#each shifts as { of, by, help } (of)}
  <span class="flex items-center gap-1.5">
    <span class="caption">{of}</span>
    <button class="control" aria-label="{of} −" data-help={help} onclick={() => playing.shift(-by)}
      >−</button
    >
    <button class="control" aria-label="{of} +" data-help={help} onclick={() => playing.shift(by)}
      >+</button
    >
  </span>
{/each}
