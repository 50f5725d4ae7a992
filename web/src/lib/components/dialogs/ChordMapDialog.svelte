<!-- @component The chords of a map: made by name, by degree or by ear, inverted, opened, sorted and led; a press on one is heard. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { get } from "../../api/http";
  import type { ChordMap, MapChord, NamedChord } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import ChordAdding from "./ChordAdding.svelte";
  import ChordRow from "./ChordRow.svelte";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable(), id }: { open: boolean; id: number } = $props();

  const session = getSession();
  const mostChords = 24;
  const maps = $derived(session.project.chordMaps ?? []);
  const map = $derived(maps.find((one) => one.id === id));
  let named = $state.raw<NamedChord[]>([]);

  $effect(() => {
    if (!open || !map) return;
    void session.snapshot.revision;
    const stale = new AbortController();
    get<NamedChord[]>(`api/chords/maps/${map.id}`, stale.signal)
      .then((chords) => (named = chords))
      .catch(() => {}); // the old names stay while the server is away
    return () => stale.abort();
  });

  /** Changes the map as it is once the edits before this one are made. */
  function set(change: (map: ChordMap) => Partial<ChordMap>): Promise<void> {
    return session.edit(() => ({
      setProject: {
        chordMaps: maps.map((one) => (one.id === id ? { ...one, ...change(one) } : one)),
      },
    }));
  }

  const change = (i: number, to: Partial<MapChord> | undefined) =>
    set(({ chords }) => ({ chords: changed(chords, i, to) }));

  /** Adds chords, as many as there is room for. */
  const add = (added: readonly MapChord[]) =>
    set(({ chords }) => ({ chords: [...chords, ...added].slice(0, mostChords) }));

  function remove(): Promise<void> {
    open = false;
    return session.edit(() => ({
      setProject: { chordMaps: maps.filter((one) => one.id !== id) },
    }));
  }

  function hear(keys: readonly number[]): void {
    for (const key of keys) void session.hear(key);
  }

  /** Sorts the chords by their lowest keys. */
  function sort(): Promise<void> {
    const lowest = ({ keys }: MapChord) => Math.min(...keys);
    return set(({ chords }) => ({ chords: [...chords].sort((a, b) => lowest(a) - lowest(b)) }));
  }
</script>

<Dialog bind:open title="Chords" size="lg">
  {#if map}
    <div class="text-ink grid gap-2">
      <div class="flex flex-wrap items-center gap-2">
        <input
          class="control w-[180px]"
          aria-label="Name of the chord map"
          maxlength="60"
          autocomplete="off"
          value={map.name}
          onchange={(event) => {
            const name = event.currentTarget.value;
            void set(() => ({ name }));
          }}
        />
        <button
          class="control"
          aria-pressed={map.led ?? false}
          onclick={() => set(({ led }) => ({ led: !led }))}>led</button
        >
        <span class="text-ink-2 text-[12px]"
          >led chords move as little as they can from the one before</span
        >
        <label class="ml-auto flex items-center gap-1.5"
          >strum <NumberField
            label="Strum of the map"
            help="How chords that are struck all at once are spread over their step, in percent: upwards above 0, downwards below; 0 is as the part has it."
            value={map.strum ?? 0}
            {...bounds.ChordMap.strum}
            usual={0}
            commit={(strum) => set(() => ({ strum }))}
          /></label
        >
        <button class="control" disabled={map.chords.length < 2} onclick={sort}>sort</button>
        <button
          class="control"
          data-help="Deletes the map; tracks that use it are silent until they have another. It can be undone."
          onclick={remove}>delete map</button
        >
      </div>
      <ol class="grid gap-1" aria-label="Chords of the map">
        {#each map.chords as chord, i (i)}
          <ChordRow
            {chord}
            number={i}
            name={named[i]?.name ?? ""}
            keys={named[i]?.keys ?? chord.keys}
            notes={named[i]?.notes ?? []}
            {hear}
            change={(to) => change(i, to)}
          />
        {/each}
      </ol>
      <ChordAdding full={map.chords.length >= mostChords} {hear} {add} />
    </div>
  {:else}
    <p>The chord map is no longer in the project.</p>
  {/if}
</Dialog>
