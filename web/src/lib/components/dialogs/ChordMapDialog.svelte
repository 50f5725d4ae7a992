<!-- @component The chords of a map: made by name, by degree or by ear, inverted, opened, sorted and led; a press on one is heard. -->
<script lang="ts">
  import { get, send } from "../../api/http";
  import type { ChordMap, FoundChords, MapChord, NamedChord } from "../../api/types";
  import { getPlaying, getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable(), id }: { open: boolean; id: number } = $props();

  const session = getSession();
  const playing = getPlaying();
  const maps = $derived(session.project.chordMaps ?? []);
  const map = $derived(maps.find((one) => one.id === id));
  const most = { chords: 24, keys: 8 };
  let named = $state.raw<NamedChord[]>([]);
  let root = $state(0);
  let quality = $state("");
  let degree = $state(1);
  let kind = $state(2);

  $effect(() => {
    if (!open || !map) return;
    void session.snapshot.revision;
    const stale = new AbortController();
    get<NamedChord[]>(`api/chords/maps/${map.id}`, stale.signal)
      .then((chords) => (named = chords))
      .catch(() => {}); // the old names stay while the server is away
    return () => stale.abort();
  });

  function set(change: Partial<ChordMap>): Promise<void> {
    const chordMaps = maps.map((one) => (one.id === id ? { ...one, ...change } : one));
    return session.edit({ setProject: { chordMaps } });
  }

  const change = (i: number, to: Partial<MapChord> | undefined) =>
    set({ chords: changed(map?.chords ?? [], i, to) });

  /** Adds a chord, and has it heard. */
  async function add(keys: readonly number[]): Promise<void> {
    hear(keys);
    await set({ chords: [...(map?.chords ?? []), { keys: keys.slice(0, most.keys) }] });
  }

  function byName(): Promise<void> {
    const semitones = session.lists.chordQualities.find(({ name }) => name === quality)?.semitones;
    return add((semitones ?? []).map((above) => 48 + root + above));
  }

  async function byDegree(): Promise<void> {
    const chord = await get<NamedChord>(`api/chords/degrees/${degree - 1}?type=${kind}`);
    await add(chord.keys);
  }

  let file = $state<HTMLInputElement>();

  /** Adds the chords of a Standard MIDI File, as many as there is room for. */
  async function load(field: HTMLInputElement): Promise<void> {
    const midi = field.files?.[0];
    field.value = "";
    if (!midi) return;
    await session.attempt(async () => {
      const { chords, remarks } = await send<FoundChords>("api/chords/file", "audio/midi", midi);
      const before = map?.chords ?? [];
      const added = chords.map(({ keys }) => ({ keys })).slice(0, most.chords - before.length);
      await set({ chords: [...before, ...added] });
      for (const remark of remarks) session.notices.add(`${remark}.`);
    });
  }

  function hear(keys: readonly number[]): void {
    for (const key of keys) void session.hear(key);
  }

  /** Sorts the chords by their lowest keys. */
  function sort(): Promise<void> {
    const lowest = ({ keys }: MapChord) => Math.min(...keys);
    return set({ chords: [...(map?.chords ?? [])].sort((a, b) => lowest(a) - lowest(b)) });
  }

  const types = $derived(session.spec("chord").words ?? []);
  const full = $derived((map?.chords.length ?? 0) >= most.chords);
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
          onchange={(event) => set({ name: event.currentTarget.value })}
        />
        <button
          class="control"
          aria-pressed={map.led ?? false}
          onclick={() => set({ led: !map.led })}>led</button
        >
        <span class="text-ink-2 text-[12px]"
          >led chords move as little as they can from the one before</span
        >
        <button class="control ml-auto" disabled={map.chords.length < 2} onclick={sort}>sort</button
        >
      </div>
      <ol class="grid gap-1" aria-label="Chords of the map">
        {#each map.chords as chord, i (i)}
          {@const keys = named[i]?.keys ?? chord.keys}
          <li class="border-line flex flex-wrap items-center gap-1.5 border-b pb-1">
            <span class="text-ink-2 w-6 text-right font-mono">{i}</span>
            <button
              class="control w-[110px]"
              aria-label="Hear chord {i}, {named[i]?.name ?? ''}"
              onclick={() => hear(keys)}>{named[i]?.name || "empty"}</button
            >
            <span class="text-ink-2 min-w-[150px] flex-1 text-[12px]"
              >{keys.map((key) => session.lists.notes[key]?.name).join(" ") || "silent"}</span
            >
            <button
              class="control"
              aria-label="Invert chord {i}"
              onclick={() =>
                change(i, {
                  inversion: ((chord.inversion ?? 0) + 1) % Math.max(1, Math.min(5, keys.length)),
                })}>inversion {chord.inversion ?? 0}</button
            >
            <button
              class="control"
              aria-label="Open chord {i}"
              aria-pressed={chord.open ?? false}
              onclick={() => change(i, { open: !chord.open })}>open</button
            >
            <button
              class="control"
              aria-label="Remove chord {i}"
              onclick={() => change(i, undefined)}>×</button
            >
          </li>
        {/each}
      </ol>
      <div class="flex flex-wrap items-center gap-1.5">
        <select class="control" aria-label="Root" bind:value={root}>
          {#each session.lists.roots as name, at (at)}<option value={at}>{name}</option>{/each}
        </select>
        <select class="control" aria-label="Kind of chord" bind:value={quality}>
          {#each session.lists.chordQualities as { name } (name)}
            <option value={name}>{name || "major"}</option>
          {/each}
        </select>
        <button class="control" disabled={full} onclick={byName}>+ by name</button>
        <select class="control ml-3" aria-label="Degree" bind:value={degree}>
          {#each [1, 2, 3, 4, 5, 6, 7] as number (number)}<option value={number}>{number}</option
            >{/each}
        </select>
        <select class="control" aria-label="Type of chord" bind:value={kind}>
          {#each types as name, at (at)}<option value={at}>{name}</option>{/each}
        </select>
        <button class="control" disabled={full} onclick={byDegree}>+ by degree</button>
        <button
          class="control ml-3"
          disabled={full || playing.down.size === 0}
          onclick={() => add([...playing.down].sort((a, b) => a - b))}>+ what is held</button
        >
        <button class="control" disabled={full} onclick={() => add([])}>+ empty</button>
        <button class="control" disabled={full} onclick={() => file?.click()}>+ from a .mid…</button
        >
        <input
          type="file"
          accept=".mid,.midi,audio/midi"
          class="hidden"
          aria-label="File with chords"
          bind:this={file}
          onchange={(event) => load(event.currentTarget)}
        />
      </div>
    </div>
  {/if}
</Dialog>
