<!-- @component The section of the song that is written. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Key, Section } from "../../api/types";
  import { rootNames } from "../../chart/key";
  import { meterOf, meterText } from "../../chart/meter";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";

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
  function drop(id: number, what: "tempo" | "luck" | "meter" | "key"): Promise<void> {
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

  function keyWords(key: Key): string {
    return `${rootNames(key, session.lists)[key.root]} ${key.scale}`;
  }

  function writeMeter(id: number, text: string): void {
    const meter = meterOf(text);
    if (meter) void set(id, { meter });
    else session.notices.add(`“${text}” is no meter; write it as 7/8 or 2+2+3/8.`);
  }
</script>

{#snippet own(
  id: number,
  what: "tempo" | "luck" | "meter" | "key",
  value: string | undefined,
  give: () => unknown,
)}
  <FieldRow
    label={what}
    help="The {what} from where the section begins; without one it stays as it is."
  >
    {#if value === undefined}
      <button class="control" aria-label="as before: give the section a {what}" onclick={give}
        >as before</button
      >
    {:else}
      {#if what === "meter"}
        <input
          class="control w-[80px]"
          aria-label="Section meter"
          autocomplete="off"
          {value}
          onchange={(event) => writeMeter(id, event.currentTarget.value)}
        />
      {:else}<span class="font-mono">{value}</span>{/if}
      <button class="control" aria-label="Leave the {what} as before" onclick={() => drop(id, what)}
        >✕</button
      >
    {/if}
  </FieldRow>
{/snippet}

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
    help="What the section changes counts in place of what a hand has changed; else that stays until it is let go of."
  >
    <input
      type="checkbox"
      aria-label="Section takes over"
      checked={section.takesOver ?? false}
      onchange={(event) => set(id, { takesOver: event.currentTarget.checked })}
    />
  </FieldRow>
  {#if section.tempo !== undefined}
    <NumberRow
      label="tempo"
      name="Section tempo"
      help="The tempo from where the section begins; in beats per minute."
      value={section.tempo / 1000}
      {...scaled(bounds.Project.tempo, 1000)}
      decimals={2}
      width="72px"
      commit={(bpm) => set(id, { tempo: Math.round(bpm * 1000) })}
    />
    <button class="control mb-1 w-full" onclick={() => drop(id, "tempo")}
      >leave the tempo as before</button
    >
  {:else}
    {@render own(id, "tempo", undefined, () => set(id, { tempo: session.project.tempo }))}
  {/if}
  {@render own(id, "luck", section.luck === undefined ? undefined : String(section.luck), () =>
    set(id, { luck: session.project.luck.number }),
  )}
  {@render own(id, "meter", section.meter && meterText(section.meter), () =>
    set(id, { meter: session.project.meter }),
  )}
  {@render own(id, "key", section.key && keyWords(section.key), () =>
    set(id, { key: session.project.key }),
  )}
  <p class="caption py-1">
    Luck and key: set them in the top bar first, then give them to the section.
  </p>
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
