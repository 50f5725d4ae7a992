<!-- @component The patterns of a track: which is written, and which plays. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChainFields from "./ChainFields.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import SwitchRow from "../fields/SwitchRow.svelte";
  import TextRow from "../fields/TextRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const stage = session.stage;
  const written = $derived(session.pattern);
  const at = $derived({ track: track.id, pattern: written.id });
  const index = $derived(track.patterns.indexOf(written));
  const playing = $derived(stage.playing(track));
  const control = $derived({ name: "pattern", track: track.id });
  const waiting = $derived(stage.waiting(control));

  /** The next letter that no pattern is named by. */
  function unusedName(): string {
    const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    return [...letters].find((l) => !track.patterns.some((p) => p.name === l)) ?? "New";
  }

  /** Copies the pattern and turns to the copy, which comes behind it. */
  async function copy(): Promise<void> {
    await session.edit({ copyPattern: { ...at, name: unusedName(), plays: false } });
    const copied = session.track.patterns[index + 1];
    if (copied) stage.write(session.track, copied.id);
  }

  /** Has the pattern that is written play; what waits is taken back instead. */
  function play(): Promise<void> {
    if (waiting) return stage.takeBack(waiting);
    return stage.do([stage.doing(control, written.id, track.playing)]);
  }
</script>

<div class="flex flex-wrap gap-1 py-1" role="group" aria-label="Patterns">
  {#each track.patterns as pattern (pattern.id)}
    <button
      class={[
        "control max-w-[90px] min-w-[28px]! truncate",
        waiting?.doing.value === pattern.id && "border-signal! border-dashed!",
      ]}
      aria-pressed={pattern.id === written.id}
      aria-label="{pattern.name}{pattern.id === playing ? ', plays' : ''}"
      data-help="Write this pattern. A triangle marks the one that plays."
      onclick={() => stage.write(track, pattern.id)}
      >{#if pattern.id === playing}<svg
          class="mr-1 inline-block h-2 w-2"
          viewBox="0 0 8 8"
          aria-hidden="true"><path d="M1 0l7 4l-7 4z" fill="currentColor" /></svg
        >{/if}{pattern.name}</button
    >
  {/each}
  <button
    class="control"
    disabled={track.patterns.length === 16}
    data-help="Copy the pattern and write the copy."
    onclick={copy}>+</button
  >
</div>
<button
  class="control mb-1 w-full"
  disabled={written.id === playing && !waiting}
  data-help="Have the pattern that is written play, from the moment that “apply” says."
  onclick={play}
  >{#if waiting}take back: {waiting.words}{:else if written.id === playing}{written.name} plays{:else}play
    {written.name}{/if}</button
>
<ChoiceRow
  label="enters"
  name="How patterns enter"
  help="Where a pattern begins when it comes to play: at its first step, or where it would be if it had played all along."
  value={track.entersAsPlayed ? "played" : "first"}
  choices={[
    { value: "first", label: "at its first step" },
    { value: "played", label: "as if it had played" },
  ]}
  select={(how) => session.setTrack({ entersAsPlayed: how === "played" })}
/>
<ChoiceRow
  label="notes then"
  name="Notes when another pattern enters"
  help="What becomes of notes that sound where another pattern of their track enters, in all tracks of the project."
  value={session.project.patternsCut ? "cut" : "finish"}
  choices={[
    { value: "finish", label: "finish" },
    { value: "cut", label: "are cut" },
  ]}
  select={(how) => session.edit({ setProject: { patternsCut: how === "cut" } })}
/>
<TextRow
  label="pattern"
  name="Pattern name"
  help="Name of the pattern that is written."
  value={written.name}
  commit={(name) => session.edit({ setPattern: { ...at, name } })}
/>
<SwitchRow name={written.name} {control} value={written.id} />
<ChainFields {track} />
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
