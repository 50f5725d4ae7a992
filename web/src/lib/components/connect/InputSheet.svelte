<!-- @component One input: which port or device of this machine it is, and what becomes of what comes in. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Input, Passage, Transposing } from "../../api/types";
  import { getOutputs, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import ClockInFields from "./ClockInFields.svelte";
  import SimulatedClock from "./SimulatedClock.svelte";

  let { input, removed }: { input: Input; removed: () => void } = $props();

  const session = getSession();
  const outputs = getOutputs();
  const inputs = session.inputs;
  const tracks = $derived(session.project.tracks);
  const isPort = $derived(input.kind === "browserPort" || input.kind === "serverDevice");
  const port = $derived(inputs.portOf(input) ?? "");
  const selected = $derived(`${input.kind}:${port}`);
  const choices = $derived.by(() => {
    const all = [
      { value: `${input.kind}:`, label: "none" },
      ...inputs.ports.map(({ name }) => ({ value: `browserPort:${name}`, label: name })),
      ...inputs.devices.map(({ name }) => ({
        ...{ value: `serverDevice:${name}`, label: `${name} (server)` },
      })),
    ];
    return all.some(({ value }) => value === selected)
      ? all
      : [...all, { value: selected, label: port || "none" }];
  });
  const channels = Array.from({ length: bounds.Track.channel.max }, (_, i) => String(i + 1));

  function select(value: string): Promise<void> {
    const [kind, ...name] = value.split(":");
    return inputs.select(input, kind as Input["kind"], name.join(":"));
  }

  /** On which channel notes go on to a track: a number, "any", or empty for none. */
  function passes(track: number): string {
    const passage = input.passesTo?.find((one) => one.track === track);
    return passage ? (passage.channel ? String(passage.channel) : "any") : "";
  }

  function pass(track: number, channel: string): Promise<void> {
    const passage: Passage = { track, channel: channel === "any" ? 0 : Number(channel) };
    return inputs.change(input, ({ passesTo = [] }) => {
      const others = passesTo.filter((one) => one.track !== track);
      return { passesTo: channel ? [...others, passage] : others };
    });
  }

  const none: Transposing = { tracks: [], root: 60 };
  const transposes = $derived(input.transposes);
  function transpose(track: number): Promise<void> {
    return inputs.change(input, ({ transposes = none }) => {
      const others = transposes.tracks.filter((id) => id !== track);
      const tracks =
        others.length < transposes.tracks.length ? others : [...transposes.tracks, track];
      return { transposes: tracks.length > 0 ? { ...transposes, tracks } : undefined };
    });
  }

  function setTransposing(change: Partial<Transposing>): Promise<void> {
    return inputs.change(input, ({ transposes = none }) => ({
      transposes: { ...transposes, ...change },
    }));
  }

  const toggles: { of: "playsIn" | "switches"; words: string; help: string }[] = [
    {
      ...{ of: "playsIn", words: "play in" },
      help: "Its notes go into steps, are learned from, and are heard by tracks whose steps or conditions wait for notes.",
    },
    {
      ...{ of: "switches", words: "press switches" },
      help: "Its notes, controllers and programs press the switches of the project.",
    },
  ];
</script>

<TextRow
  label="input"
  name="Name of the input"
  help="What the input is called. A project knows its inputs by name."
  value={input.name}
  commit={(name) => inputs.change(input, { name })}
/>
{#if isPort}
  <ChoiceRow
    label="port"
    name="Port of the input"
    help="What is heard: a MIDI port of this browser, or a MIDI device of the machine on which the program runs (server). It stays with this machine, not with the project."
    value={selected}
    {choices}
    {select}
  />
{/if}
<p class="text-ink-2 py-1">{inputs.stateOf(input).words}</p>
{#if port === "simulated clock"}
  <SimulatedClock />
{/if}
<NumberRow
  label="channel"
  name="Channel of the input"
  help="The only MIDI channel of which notes and controllers count; 0 is all."
  value={input.channel ?? 0}
  {...bounds.Input.channel}
  usual={0}
  commit={(channel) => inputs.change(input, { channel })}
/>
{#each toggles as { of, words, help } (of)}
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={input[of] ?? false}
    data-help={help}
    onclick={() => inputs.change(input, { [of]: !input[of] })}>{words}</button
  >
{/each}
<ClockInFields {input} />
<Section title="pass on" summary={input.passesTo?.length ? "to tracks" : ""}>
  <p class="text-ink-2 pb-1">Its notes go on at once to the outputs of tracks.</p>
  {#each tracks as track (track.id)}
    <ChoiceRow
      label={track.name}
      name="Pass on to {track.name}"
      help="On which channel notes go on to this track’s outputs, by its routes. They are recorded as the track’s."
      value={passes(track.id)}
      choices={[
        { value: "", label: "no" },
        { value: "any", label: "any channel" },
        ...channels.map((value) => ({ value, label: `channel ${value}` })),
      ]}
      select={(channel) => pass(track.id, channel)}
    />
  {/each}
  <ChoiceRow
    label="notes last"
    name="How long passed notes last"
    help="Notes that are passed on last as long as their keys are down, longer while the sustain pedal (CC 64) is, or until the next keys are pressed."
    value={input.holds ?? ""}
    choices={[
      { value: "", label: "as keys" },
      { value: "pedal", label: "with the pedal" },
      { value: "latch", label: "latched" },
    ]}
    select={(holds) => inputs.change(input, { holds: holds as Input["holds"] })}
  />
</Section>
<Section title="transpose" summary={transposes ? "transposes" : ""}>
  <p class="text-ink-2 pb-1">Its keys transpose these tracks, by semitones from a key.</p>
  {#each tracks.filter(({ kind }) => kind !== "kit") as track (track.id)}
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={transposes?.tracks.includes(track.id) ?? false}
      aria-label="{track.name}: transpose"
      data-help="Have keys of this input transpose this track."
      onclick={() => transpose(track.id)}>{track.name}</button
    >
  {/each}
  {#if transposes}
    <NumberRow
      label="from {session.notes.name(transposes.root)}"
      name="Key that transposes by nothing"
      help="The key that transposes by nothing: one above it transposes up by a semitone."
      value={transposes.root}
      {...bounds.Transposing.root}
      commit={(root) => setTransposing({ root })}
    />
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={transposes.latches ?? false}
      data-help="A transposition stays after its key is released; else it holds while the key is down."
      onclick={() => setTransposing({ latches: !transposes.latches })}>latch</button
    >
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={transposes.lowest ?? false}
      data-help="The lowest of the keys that are down transposes; else the last that was pressed."
      onclick={() => setTransposing({ lowest: !transposes.lowest })}>by the lowest key</button
    >
  {/if}
</Section>
{#if input.kind === "browserPort" && outputs.browser.access !== true && inputs.ports.length === 0}
  <p class="text-ink-2 pb-1">Press “use MIDI inputs” to see what this browser has.</p>
{/if}
<button
  class="control mt-2 w-full"
  data-help="Remove the input. Undo brings it back."
  onclick={async () => {
    await inputs.remove(input);
    removed();
  }}>remove the input</button
>
