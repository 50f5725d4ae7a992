<!-- @component A keyboard on the screen, where notes come from, and what becomes of them. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { gateLane } from "../../chart/gate";
  import { layouts, type Layout } from "../../input/layouts";
  import { getChartView, getPlaying, getSession } from "../../state/context";
  import type { Learned, PlayingMode } from "../../state/playing.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import KeyShifts from "./KeyShifts.svelte";
  import ScreenControls from "./ScreenControls.svelte";
  import ScreenKeys from "./ScreenKeys.svelte";

  const session = getSession();
  const view = getChartView();
  const playing = getPlaying();

  const modes: { value: PlayingMode; words: string; help: string }[] = [
    { value: "hear", words: "only heard", help: "Notes are heard, and change nothing." },
    {
      value: "steps",
      words: "into steps, one by one",
      help: "Each note or chord goes into the step of the cursor, which then moves on.",
    },
    {
      value: "time",
      words: "into steps, in time",
      help: "While the project plays, notes go into the steps that are on their way.",
    },
  ];
  const learned: { what: Learned; help: string }[] = [
    { what: "root", help: "The next note that is played is the root of the key." },
    { what: "scale", help: "The next notes that are held together are the scale." },
    {
      what: "chord",
      help: "The next notes that are held together are the chord of the cursor's step.",
    },
  ];
  let controls = $state(false);
  /** The ports that can be played, with the one that is selected, though it may be unplugged. */
  const ports = $derived(
    [...new Set([...session.inputs.ports.map(({ name }) => name), playing.portName])].filter(
      Boolean,
    ),
  );
  const where = $derived(
    `${session.track.name}, step ${view.stepOf(gateLane) - session.loop(gateLane).first + 1} of ${session.loop(gateLane).length}`,
  );
</script>

<section data-area class="border-line bg-paper-2 border-t px-3 py-2" aria-label="Keyboard">
  <div class="mb-1.5 flex flex-wrap items-center gap-1.5">
    <select
      class="control"
      aria-label="Input"
      data-help="Where notes come from."
      value={playing.portName}
      onchange={(event) => playing.selectPort(event.currentTarget.value)}
    >
      <option value="">{playing.keyboard.name}</option>
      {#each ports as name (name)}<option>{name}</option>{/each}
    </select>
    <button
      class="control"
      data-help="Ask the browser for the MIDI keyboards that are plugged in."
      onclick={() => session.inputs.findPorts()}>find inputs</button
    >
    <select
      class="control"
      aria-label="What becomes of notes"
      data-help={modes.find(({ value }) => value === playing.mode)?.help}
      value={playing.mode}
      onchange={(event) => (playing.mode = event.currentTarget.value as PlayingMode)}
    >
      {#each modes as { value, words } (value)}<option {value}>{words}</option>{/each}
    </select>
    {#if playing.mode !== "hear"}
      <select
        class="control max-w-[164px]"
        aria-label="Notes outside the scale"
        data-help="What becomes of notes outside the scale."
        value={playing.fit}
        onchange={(event) => (playing.fit = event.currentTarget.value)}
      >
        <option value="">notes outside the scale stay</option>
        <option value="nearest">to the nearest of the scale</option>
        <option value="up">up into the scale</option>
        <option value="down">down into the scale</option>
      </select>
    {/if}
    {#if playing.mode === "steps"}
      {#each [["rest", "C"], ["tie", "V"], ["back", "B"]] as const as [what, key] (what)}
        <button
          class="control"
          data-help={what === "back"
            ? `Back by a step. ${key}, while the computer's keys play`
            : `Enter a ${what}. ${key}, while the computer's keys play`}
          onclick={() => playing.enter(what)}>{what}</button
        >
      {/each}
      <span class="caption min-w-0 truncate" role="note" data-entry>{where}</span>
    {:else if playing.mode === "time"}
      <span class="caption">strength %</span>
      <NumberField
        label="Strength of quantisation"
        help="How far notes go to their steps; the rest is kept as nudge."
        value={playing.strength}
        {...bounds.PlayedRequest.strength}
        width="3ch"
        commit={async (value) => {
          playing.strength = value;
        }}
      />
      <button
        class="control"
        aria-pressed={playing.replace}
        data-help="Replace: steps that you play past are silenced. Else notes are added."
        onclick={() => (playing.replace = !playing.replace)}>replace</button
      >
      <span class="caption min-w-0 truncate"
        >{session.transport.playing ? session.track.name : "press Play first"}</span
      >
    {/if}
    <span class="flex-1"></span>
    <span class="caption">learn</span>
    {#each learned as { what, help } (what)}
      <button
        class="control"
        aria-label="Learn {what}"
        aria-pressed={playing.learning === what}
        data-help={help}
        onclick={() => playing.learn(what)}>{what}</button
      >
    {/each}
    <button
      class="control"
      aria-pressed={playing.computerKeys}
      data-help="The computer's keys play: A W S E D and on, Z and X for the octave. The other uses of these letters rest meanwhile."
      onclick={() => (playing.computerKeys = !playing.computerKeys)}>computer keys</button
    >
    <select
      class="control"
      aria-label="Layout of the keys"
      data-help={layouts.find(({ value }) => value === playing.layout)?.help}
      value={playing.layout}
      onchange={(event) => (playing.layout = event.currentTarget.value as Layout)}
    >
      {#each layouts as { value, words } (value)}<option {value}>{words}</option>{/each}
    </select>
    <button
      class="control"
      aria-pressed={playing.velocity !== undefined}
      data-help="Strike all keys of the screen and the computer with one velocity; else a press further down a key is louder."
      onclick={() => (playing.velocity = playing.velocity === undefined ? 92 : undefined)}
      >set velocity</button
    >
    {#if playing.velocity !== undefined}
      <NumberField
        label="Velocity of the keys"
        help="How hard all keys of the screen and the computer are struck."
        value={playing.velocity}
        {...bounds.PlayedNote.velocity}
        width="3ch"
        commit={async (value) => {
          playing.velocity = value;
        }}
      />
    {/if}
    <button
      class="control"
      aria-pressed={controls}
      data-help="Knobs, faders, buttons and two pedals, as a controller has them."
      onclick={() => (controls = !controls)}>knobs</button
    >
    <KeyShifts />
  </div>
  {#if controls}<ScreenControls />{/if}
  <ScreenKeys />
</section>
