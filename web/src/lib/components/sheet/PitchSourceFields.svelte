<!-- @component Where a melodic track has its pitches from: the key, or a chord, in an order and by rules. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { ChordMap, PitchSource, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChordMapDialog from "../dialogs/ChordMapDialog.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import RoleRules from "./RoleRules.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const source: PitchSource = $derived(track.pitches ?? { kind: "key" });
  const others = $derived(session.project.tracks.filter(({ id }) => id !== track.id));
  const maps = $derived(session.project.chordMaps ?? []);
  const map = $derived(maps.find(({ id }) => id === source.map));
  const keyed = $derived(source.kind === "held" || (source.kind === "map" && source.byNote));
  const switches = $derived([
    ...(source.kind === "map"
      ? [
          {
            of: "byNote" as const,
            words: "called by notes",
            help: "Notes that come in call the chords, the lowest that counts the first; else the pitch lane does.",
          },
        ]
      : []),
    ...(source.kind === "held"
      ? [
          {
            of: "latched" as const,
            words: "latched",
            help: "The chord stays when all keys are let go, until another is pressed.",
          },
        ]
      : []),
    ...(keyed
      ? [
          {
            of: "restart" as const,
            words: "restart",
            help: "All lanes begin anew with the first step after a key is pressed while none was down.",
          },
        ]
      : []),
  ]);
  let editing = $state(false);

  const choices = $derived(
    session.lists.pitchKinds.filter(({ value }) => value !== "track" || others.length > 0),
  );

  function set(change: Partial<PitchSource>): Promise<void> {
    return session.setTrack({ pitches: { ...source, ...change } });
  }

  /** Adds a map, one that ships or an empty one, and has the track use it. */
  async function addMap(ready?: ChordMap): Promise<void> {
    let id = 1;
    while (maps.some((map) => map.id === id)) id++;
    let name = ready?.name ?? `Chords ${id}`;
    while (maps.some((map) => map.name === name)) name += " 2";
    const added = { ...(ready ?? { chords: [] }), id, name };
    await session.edit({ setProject: { chordMaps: [...maps, added] } });
    await set({ kind: "map", map: id });
  }

  /** Has the track use a map of the project, or one that is added. */
  function selectMap(value: string): Promise<void> {
    const ready = session.lists.chordMaps.find(({ name }) => value === `ship ${name}`);
    if (ready || value === "new") return addMap(ready);
    return set({ map: Number(value) });
  }

  async function setKind(kind: PitchSource["kind"]): Promise<void> {
    const pitches: PitchSource = {
      kind,
      track: kind === "track" ? (others[0]?.id ?? 0) : 0,
      map: kind === "map" ? (maps[0]?.id ?? 1) : 0,
      highest: 127,
      order: kind === "map" ? "" : "up",
      rules: source.rules ?? [],
    };
    await session.setTrack({ pitches });
    if (kind === "map" && maps.length === 0) await addMap();
  }
</script>

<ChoiceRow
  label="from"
  name="Where pitches are from"
  help="What the pitch lane reads: degrees of the key, or notes of a chord, of which 0 is the first."
  value={source.kind}
  {choices}
  select={(kind) => setKind(kind as PitchSource["kind"])}
/>
{#if source.kind === "track"}
  <ChoiceRow
    label="track"
    name="Track whose notes are played"
    help="The notes of the last step of this track are the chord, whether it is silenced or not."
    value={String(source.track ?? 0)}
    choices={others.map(({ id, name }) => ({ value: String(id), label: name }))}
    select={(id) => set({ track: Number(id) })}
  />
{:else if source.kind === "map"}
  <ChoiceRow
    label="map"
    name="Chord map"
    help="The chords that are called; those with a + are added to the project."
    value={String(source.map ?? 0)}
    choices={[
      ...(map ? [] : [{ value: String(source.map ?? 0), label: "none" }]),
      ...maps.map(({ id, name }) => ({ value: String(id), label: name })),
      ...(maps.length < 16
        ? [
            { value: "new", label: "+ new map" },
            ...session.lists.chordMaps.map(({ name }) => ({
              value: `ship ${name}`,
              label: `+ ${name}`,
            })),
          ]
        : []),
    ]}
    select={selectMap}
  />
  <button
    class="control my-0.5 w-full"
    data-help="The chords of the maps: their keys, inverted, opened and led."
    onclick={() => (editing = true)}>chords…</button
  >
  <ChordMapDialog bind:open={editing} id={source.map ?? 0} />
  {#if map && map.chords.every(({ keys }) => keys.length === 0)}
    <p class="text-ink-2 pb-1" role="note">The map has no chords, so the track is silent.</p>
  {/if}
{/if}
{#if source.kind !== "key"}
  <ChoiceRow
    label="order"
    name="Order of the chord's notes"
    help="In which order the notes of the chord are played, one with each strike."
    value={source.order ?? ""}
    choices={session.lists.chordOrders.map((order) =>
      source.kind === "map" && !source.byNote && order.value === ""
        ? { ...order, label: "all at once" }
        : order,
    )}
    select={(order) => set({ order: order as NonNullable<PitchSource["order"]> })}
  />
  <NumberRow
    label="octaves"
    name="Octaves of the chord"
    help="Over how many octaves it goes before it begins anew; 0 is on and on by the pitch lane, and one octave in an order."
    value={source.octaves ?? 0}
    {...bounds.PitchSource.octaves}
    usual={0}
    commit={(octaves) => set({ octaves })}
  />
  {#each switches as { of, words, help } (of)}
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={source[of] ?? false}
      data-help={help}
      onclick={() => set({ [of]: !source[of] })}>{words}</button
    >
  {/each}
  {#if keyed}
    <NumberRow
      label="from channel"
      name="Channel of the chord's keys"
      help="Channel of the notes that come in; 0 is all. Their input must be played in."
      value={source.channel ?? 0}
      {...bounds.PitchSource.channel}
      usual={0}
      commit={(channel) => set({ channel })}
    />
    {#each ["lowest", "highest"] as const as end (end)}
      <NumberRow
        label={end}
        name="{end === 'lowest' ? 'Lowest' : 'Highest'} key of the chord"
        note
        help="The {end} note that counts, by name or MIDI number."
        value={source[end] ?? 0}
        min={end === "lowest" ? bounds.PitchSource.lowest.min : (source.lowest ?? 0)}
        max={end === "lowest" ? (source.highest ?? 0) : bounds.PitchSource.highest.max}
        commit={(key) => set({ [end]: key })}
      />
    {/each}
  {/if}
  <RoleRules rules={source.rules ?? []} set={(rules) => set({ rules })} />
{/if}
