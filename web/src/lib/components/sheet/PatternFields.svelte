<!-- @component The patterns of a track; the one that plays is the one that is written. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import TextRow from "../fields/TextRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const at = $derived({ track: track.id, pattern: track.playing });
  const index = $derived(track.patterns.findIndex(({ id }) => id === track.playing));
  const playing = $derived(track.patterns[index]);

  /** The next letter that no pattern is named by. */
  function unusedName(): string {
    const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    return [...letters].find((l) => !track.patterns.some((p) => p.name === l)) ?? "New";
  }

  /** Copies the pattern and turns to the copy, which comes behind it. */
  function copy(): Promise<void> {
    return session.edit({ copyPattern: { ...at, name: unusedName(), plays: true } });
  }
</script>

<div class="flex flex-wrap gap-1 py-1" role="group" aria-label="Patterns">
  {#each track.patterns as pattern (pattern.id)}
    <button
      class="control max-w-[90px] min-w-[28px]! truncate"
      aria-pressed={pattern.id === track.playing}
      data-help="Play and write this pattern."
      onclick={() => session.setTrack({ playing: pattern.id })}>{pattern.name}</button
    >
  {/each}
  <button
    class="control"
    disabled={track.patterns.length === 16}
    data-help="Copy the pattern and write the copy."
    onclick={copy}>+</button
  >
</div>
{#if playing}
  <TextRow
    label="pattern"
    name="Pattern name"
    help="Name of the pattern that plays."
    value={playing.name}
    commit={(name) => session.edit({ setPattern: { ...at, name } })}
  />
{/if}
<div class="flex gap-1 py-1">
  <button
    class="control"
    aria-label="Move the pattern left"
    disabled={index === 0}
    onclick={() => session.edit({ movePattern: { ...at, to: index - 1 } })}>←</button
  >
  <button
    class="control"
    aria-label="Move the pattern right"
    disabled={index === track.patterns.length - 1}
    onclick={() => session.edit({ movePattern: { ...at, to: index + 1 } })}>→</button
  >
  <button
    class="control"
    disabled={track.patterns.length === 1}
    data-help="Delete the pattern. Undo brings it back."
    onclick={() => session.edit({ removePattern: at })}>delete</button
  >
</div>
