<!-- @component The part: its name and note, how its ratchets and chords are played, how long its steps last. -->
<script lang="ts">
  import { counted } from "../../counted";
  import type { Part, SetPart } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import DurationFields from "./DurationFields.svelte";

  const session = getSession();
  const part: Part = $derived(session.part);
  const kit = $derived(session.track.kind === "kit");
  const index = $derived(session.partIndex);
  const notes = $derived([
    ...session.lists.percussion.map(({ note, name }) => ({
      value: String(note),
      label: `${note} ${name}`,
    })),
    ...(session.lists.percussion.some(({ note }) => note === part.note)
      ? []
      : [{ value: String(part.note), label: `${part.note}` }]),
  ]);

  function set(change: Omit<SetPart, "track" | "pattern" | "part">): Promise<void> {
    return session.setPart(change);
  }

  /** Takes a percussion key, and its name if the part still bears the name of the key before. */
  function setNote(note: number): Promise<void> {
    const nameOf = (n: number) => session.lists.percussion.find((key) => key.note === n)?.name;
    const named = [nameOf(part.note), `Note ${part.note}`, "Part 1"].includes(part.name);
    const name = nameOf(note) ?? `Note ${note}`;
    return set(named ? { note, name } : { note });
  }

  async function move(by: number): Promise<void> {
    await session.edit({ movePart: { ...session.address, to: index + by } });
    session.choosePart(index + by);
  }

  async function copy(): Promise<void> {
    await session.edit({ addPart: { ...session.address, note: part.note, copy: true } });
    session.choosePart(index + 1);
  }
</script>

<TextRow
  label="name"
  name="Part name"
  help="The part's name."
  value={part.name}
  commit={(name) => set({ name })}
/>
{#if kit}
  <ChoiceRow
    label="plays"
    help="What General MIDI plays at the part's note."
    value={String(part.note)}
    choices={notes}
    choose={(note) => setNote(Number(note))}
  />
  <NumberRow
    label="note"
    name="Part note"
    note
    help="The note that the part plays, by name or MIDI number."
    value={part.note}
    min={0}
    max={127}
    commit={setNote}
  />
  <div class="flex flex-wrap gap-1 py-1">
    <button
      class="control"
      data-help="Hear the part's note."
      onclick={() => session.hear(part.note)}>hear</button
    >
    <button
      class="control"
      aria-label="Move the part up"
      disabled={index === 0}
      onclick={() => move(-1)}>↑</button
    >
    <button
      class="control"
      aria-label="Move the part down"
      disabled={index === session.parts.length - 1}
      onclick={() => move(1)}>↓</button
    >
    <button
      class="control"
      disabled={session.parts.length === 16}
      data-help="Copy the part, behind this one."
      onclick={copy}>copy</button
    >
    <button
      class="control"
      disabled={session.parts.length === 1}
      data-help="Delete the part. Undo brings it back."
      onclick={() => session.edit({ removePart: session.address })}>delete</button
    >
  </div>
{/if}
<NumberRow
  label="fill"
  help="How often a step that is off sounds while the project is filling."
  unit="%"
  value={part.fill}
  min={0}
  max={100}
  usual={0}
  commit={(fill) => set({ fill })}
/>
<ChoiceRow
  label="lengths count"
  help="What the length lane's values are shares and multiples of: the step, or a note value."
  value={part.lengthUnit ?? ""}
  choices={[
    { value: "", label: "the step" },
    ...session.lists.rates.map(({ name }) => ({ value: name, label: name })),
  ]}
  choose={(lengthUnit) => set({ lengthUnit })}
/>
<Section title="ratchets" summary={part.ratchet.spacing}>
  <ChoiceRow
    label="spacing"
    help="How the strikes of a ratchet lie in the step."
    value={part.ratchet.spacing}
    choices={session.lists.spacings}
    choose={(spacing) =>
      set({ ratchet: { ...part.ratchet, spacing: spacing as Part["ratchet"]["spacing"] } })}
  />
  <NumberRow
    label="ramp"
    help="How much the velocity changes from the first strike to the last."
    unit="%"
    value={part.ratchet.ramp}
    min={-100}
    max={100}
    usual={0}
    commit={(ramp) => set({ ratchet: { ...part.ratchet, ramp } })}
  />
  <NumberRow
    label="odds"
    help="How often each strike but the first sounds."
    unit="%"
    value={part.ratchet.odds}
    min={0}
    max={100}
    usual={100}
    commit={(odds) => set({ ratchet: { ...part.ratchet, odds } })}
  />
</Section>
{#if !kit}
  <Section title="chords" summary="inversion {part.voicing.inversion}">
    <NumberRow
      label="inversion"
      help="So many of the lowest notes go an octave up."
      value={part.voicing.inversion}
      min={0}
      max={4}
      usual={0}
      commit={(inversion) => set({ voicing: { ...part.voicing, inversion } })}
    />
    <NumberRow
      label="strum"
      help="The time from the first note to the last, in percent of the step; below 0 downwards."
      unit="%"
      value={part.voicing.strum}
      min={-100}
      max={100}
      usual={0}
      commit={(strum) => set({ voicing: { ...part.voicing, strum } })}
    />
    <button
      class="control my-1 w-full"
      aria-pressed={part.voicing.open}
      data-help="Open: every second note an octave up."
      onclick={() => set({ voicing: { ...part.voicing, open: !part.voicing.open } })}>open</button
    >
    <NumberRow
      label="slide time"
      help="The portamento time that is sent for slides (CC 5)."
      value={part.slideTime}
      min={0}
      max={127}
      usual={0}
      commit={(slideTime) => set({ slideTime })}
    />
  </Section>
{/if}
<Section title="hold steps" summary={part.held.length ? counted(part.held.length, "step") : "none"}>
  <NumberRow
    label="first"
    name="First held step"
    help="While performing, the gates are held to a range that begins at this step."
    value={part.held.first + 1}
    min={1}
    max={64 - Math.max(0, part.held.length - 1)}
    usual={1}
    commit={(first) => set({ held: { ...part.held, first: first - 1 } })}
  />
  <NumberRow
    label="steps"
    name="Held steps"
    help="How many steps are held; 0 lets go."
    value={part.held.length}
    min={0}
    max={64 - part.held.first}
    usual={0}
    commit={(length) => set({ held: { ...part.held, length } })}
  />
</Section>
<Section
  title="drawn durations"
  summary={part.durations?.length ? `${part.durations.length} lines` : "none"}
>
  <DurationFields durations={part.durations ?? []} />
</Section>
