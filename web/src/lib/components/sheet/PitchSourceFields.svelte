<!-- @component Where a melodic track has its pitches from: the key, or a chord, in an order and by rules. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { ChordMap, PitchSource, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changeOf, type ChangeOf } from "../../state/selection.svelte";
  import ChordMapDialog from "../dialogs/ChordMapDialog.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import KeysFields from "./KeysFields.svelte";
  import RoleRules from "./RoleRules.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const none: PitchSource = { kind: "key", highest: 127 };
  const source = $derived(track.pitches ?? none);
  const others = $derived(session.project.tracks.filter(({ id }) => id !== track.id));
  const maps = $derived(session.project.chordMaps ?? []);
  const map = $derived(maps.find(({ id }) => id === source.map));
  const calls = [
    { value: "lane", label: "the pitch lane", help: "The pitch lane calls them, 0 the first." },
    {
      value: "notes",
      label: "notes",
      help: "Notes that come in call them, the lowest that counts the first.",
    },
    {
      value: "time",
      label: "time",
      help: "They come one after the other from the beginning of the song, each as long as it lasts, over and over.",
    },
  ];
  const called = $derived(source.byNote ? "notes" : source.inTime ? "time" : "lane");
  /** Has chords be called. Where the pitch lane does not, their notes come in an order unless another was chosen. */
  function callBy(by: string): Promise<void> {
    const order = source.order || (by === "lane" ? "" : "up");
    return set({ byNote: by === "notes", inTime: by === "time", order });
  }

  let editing = $state(false);

  const choices = $derived(
    session.lists.pitchKinds.filter(({ value }) => value !== "track" || others.length > 0),
  );

  function set(change: ChangeOf<PitchSource, Partial<PitchSource>>): Promise<void> {
    return session.setTrack(({ pitches: now = none }) => ({
      pitches: { ...now, ...changeOf(change, now) },
    }));
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

{#if track.kind !== "kit"}
  <ChoiceRow
    label="from"
    name="Where pitches are from"
    help="What the pitch lane reads: degrees of the key, or notes of a chord, of which 0 is the first."
    value={source.kind}
    {choices}
    select={(kind) => setKind(kind as PitchSource["kind"])}
  />
{/if}
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
  <ChoiceRow
    label="called by"
    name="What calls the chords"
    help="What says which chord of the map is played."
    value={called}
    choices={calls}
    select={callBy}
  />
  <button
    class="control my-0.5 w-full"
    disabled={!map}
    data-help="The chords of the map: their keys, inverted, opened and led."
    onclick={() => (editing = true)}>chords…</button
  >
  <ChordMapDialog bind:open={editing} id={source.map ?? 0} />
  {#if !map}
    <p class="text-ink-2 pb-1" role="note">No map is selected, so the track is silent.</p>
  {:else if map.chords.every(({ keys }) => keys.length === 0)}
    <p class="text-ink-2 pb-1" role="note">The map has no chords, so the track is silent.</p>
  {/if}
{/if}
{#if source.kind !== "key"}
  <ChoiceRow
    label="order"
    name="Order of the chord's notes"
    help="In which order the notes of the chord are played, one with each ratchet hit."
    value={source.order ?? ""}
    choices={session.lists.chordOrders.map((order) =>
      source.kind === "map" && called === "lane" && order.value === ""
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
{/if}
<KeysFields {source} {set} />
{#if source.kind !== "key"}
  <RoleRules
    rules={source.rules ?? []}
    set={(made) => set((now) => ({ rules: made(now.rules ?? []) }))}
  />
{/if}
