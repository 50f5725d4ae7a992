<!-- @component The section of the song that is written. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Section } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import SwitchRow from "../fields/SwitchRow.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import SectionOwn, { type Own } from "./SectionOwn.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const song = $derived(session.project.song ?? []);
  const index = $derived(song.findIndex(({ id }) => id === perform.section));
  const section = $derived(song[index]);
  const scenes = $derived(session.project.scenes ?? []);

  /** Writes the section as it is by then, changed. */
  function set(id: number, change: Partial<Section>): Promise<void> {
    return session.edit(() => {
      const now = (session.project.song ?? []).find((s) => s.id === id);
      return { setSection: { section: { ...(now ?? newSection()), ...change } } };
    });
  }

  /** Takes back what the section says itself, so that it stays as it was before. */
  function drop(id: number, what: Own): Promise<void> {
    return session.edit(() => {
      const rest = { ...((session.project.song ?? []).find((s) => s.id === id) ?? newSection()) };
      delete rest[what];
      return { setSection: { section: rest } };
    });
  }

  function newSection(): Section {
    return {
      id: 0,
      name: section?.name ?? scenes[0]?.name ?? "Section",
      bars: 4,
      repeats: 1,
      scene: section?.scene ?? scenes[0]?.id ?? 0,
    };
  }

  /** Adds a section behind the one that is written, and turns to it. */
  async function add(): Promise<void> {
    const at = index < 0 ? song.length : index + 1;
    await session.edit(() => ({ setSection: { at, section: newSection() } }));
    perform.section = (session.project.song ?? [])[at]?.id ?? perform.section;
  }

  function move(id: number, at: number): Promise<void> {
    return session.edit(() => {
      const now = (session.project.song ?? []).find((s) => s.id === id) ?? newSection();
      return { setSection: { at, section: now } };
    });
  }
</script>

{#if section}
  {@const { id } = section}
  <TextRow
    label="section"
    name="Section name"
    help="Name of the section."
    value={section.name}
    commit={(name) => set(id, { name })}
  />
  <ChoiceRow
    label="scene"
    name="Scene of the section"
    help="The scene that holds from where the section begins on; a section without one changes only what it says itself."
    value={String(section.scene ?? 0)}
    choices={[
      { value: "0", label: "none" },
      ...scenes.map((s) => ({ value: String(s.id), label: s.name })),
    ]}
    select={(scene) => set(id, { scene: Number(scene) })}
  />
  <NumberRow
    label="bars"
    name="Section bars"
    help="How many bars a pass of the section has."
    value={section.bars}
    {...bounds.Section.bars}
    commit={(bars) => set(id, { bars })}
  />
  <NumberRow
    label="passes"
    name="Section passes"
    help="How many times the section plays; 0 is until it is released, which ends it with its pass."
    value={section.repeats}
    {...bounds.Section.repeats}
    show={(n) => (n === 0 ? "until released" : String(n))}
    read={(text) => (text.startsWith("until") ? 0 : undefined)}
    width="126px"
    commit={(repeats) => set(id, { repeats })}
  />
  <FieldRow
    label="takes over"
    help="What the section changes counts in place of what a hand has changed; else that stays until it is cleared."
  >
    <input
      type="checkbox"
      aria-label="Section takes over"
      checked={section.takesOver ?? false}
      onchange={(event) => set(id, { takesOver: event.currentTarget.checked })}
    />
  </FieldRow>
  <SwitchRow name={section.name} control={{ name: "section" }} value={id} />
  <SectionOwn {section} set={(change) => set(id, change)} drop={(what) => drop(id, what)} />
  <div class="flex gap-1 py-1">
    <button
      class="control"
      aria-label="Move the section left"
      disabled={index === 0}
      onclick={() => move(id, index - 1)}>←</button
    >
    <button
      class="control"
      aria-label="Move the section right"
      disabled={index === song.length - 1}
      onclick={() => move(id, index + 1)}>→</button
    >
    <button
      class="control"
      aria-label="Add a section"
      disabled={song.length >= 128}
      data-help="Add a section behind this one."
      onclick={add}>+ section</button
    >
    <button
      class="control"
      aria-label="Delete the section"
      data-help="Delete the section. Undo brings it back."
      onclick={() => session.edit({ removeSection: { section: id } })}>delete</button
    >
  </div>
{:else}
  <p class="text-ink-2 py-1">
    {song.length > 0
      ? "Press a section of the song to write it."
      : "A song is sections, each of which plays a scene for some bars."}
  </p>
  <button class="control" aria-label="Add a section" disabled={song.length >= 128} onclick={add}
    >+ section</button
  >
{/if}
