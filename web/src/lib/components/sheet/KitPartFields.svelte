<!-- @component A part of a kit: what it plays, and its place. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Part, PartChange } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    part: Part;
    set: (change: PartChange) => Promise<void>;
  }
  let { part, set }: Props = $props();

  const session = getSession();
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

  /** Takes a percussion key, and its name if the part still bears the name of the key before. */
  function setNote(note: number): Promise<void> {
    const nameOf = (n: number) => session.lists.percussion.find((key) => key.note === n)?.name;
    const named = [nameOf(part.note), `Note ${part.note}`, "Part 1"].includes(part.name);
    const name = nameOf(note) ?? `Note ${note}`;
    return set(named ? { note, name } : { note });
  }

  async function move(by: number): Promise<void> {
    await session.edit({ movePart: { ...session.address, to: index + by } });
    session.selectPart(index + by);
  }

  async function copy(): Promise<void> {
    await session.edit({ addPart: { ...session.address, note: part.note, copy: true } });
    session.selectPart(index + 1);
  }
</script>

<ChoiceRow
  label="plays"
  help="What General MIDI plays at the part's note."
  value={String(part.note)}
  choices={notes}
  select={(note) => setNote(Number(note))}
/>
<NumberRow
  label="note"
  name="Part note"
  note
  help="The note that the part plays, by name or MIDI number."
  value={part.note}
  {...bounds.Part.note}
  commit={setNote}
/>
<div class="flex flex-wrap gap-1 py-1">
  <button class="control" data-help="Hear the part's note." onclick={() => session.hear(part.note)}
    >hear</button
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
