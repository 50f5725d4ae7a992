<!-- @component Adds chords to a map: by name, by degree, of what is held, or of a MIDI file. -->
<script lang="ts">
  import { get, send } from "../../api/http";
  import type { FoundChords, MapChord, NamedChord } from "../../api/types";
  import { getPlaying, getSession } from "../../state/context";

  interface Props {
    /** Whether the map has no room for more chords. */
    full: boolean;
    hear: (keys: readonly number[]) => void;
    /** Adds chords, as many as there is room for. */
    add: (chords: readonly MapChord[]) => Promise<void>;
  }
  let { full, hear, add }: Props = $props();

  const session = getSession();
  const playing = getPlaying();
  const mostKeys = 8;
  let root = $state(0);
  let quality = $state("");
  let degree = $state(1);
  let kind = $state(2);
  const types = $derived(session.spec("chord").words ?? []);

  /** Adds a chord, and has it heard. */
  function addHeard(keys: readonly number[]): Promise<void> {
    hear(keys);
    return add([{ keys: keys.slice(0, mostKeys) }]);
  }

  function byName(): Promise<void> {
    const semitones = session.lists.chordQualities.find(({ name }) => name === quality)?.semitones;
    return addHeard((semitones ?? []).map((above) => 48 + root + above));
  }

  async function byDegree(): Promise<void> {
    const chord = await get<NamedChord>(`api/chords/degrees/${degree - 1}?type=${kind}`);
    await addHeard(chord.keys);
  }

  let file = $state<HTMLInputElement>();
  let inTime = false;

  /** Asks for a file of which to add the chords, each once or as they come in time. */
  function choose(timed: boolean): void {
    inTime = timed;
    file?.click();
  }

  /** Adds the chords of a Standard MIDI File, as many as there is room for. */
  async function load(field: HTMLInputElement): Promise<void> {
    const midi = field.files?.[0];
    field.value = "";
    if (!midi) return;
    await session.attempt(async () => {
      const { chords: found, remarks } = await send<FoundChords>(
        `api/chords/file?inTime=${inTime}`,
        "audio/midi",
        midi,
      );
      await add(found.map(({ keys, beats }) => ({ keys, beats: beats ?? 0 })));
      for (const remark of remarks) session.notices.add(`${remark}.`);
    });
  }
</script>

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
    {#each [1, 2, 3, 4, 5, 6, 7] as number (number)}<option value={number}>{number}</option>{/each}
  </select>
  <select class="control" aria-label="Type of chord" bind:value={kind}>
    {#each types as name, at (at)}<option value={at}>{name}</option>{/each}
  </select>
  <button class="control" disabled={full} onclick={byDegree}>+ by degree</button>
  <button
    class="control ml-3"
    disabled={full || playing.down.size === 0}
    onclick={() => addHeard([...playing.down].sort((a, b) => a - b))}>+ what is held</button
  >
  <button class="control" disabled={full} onclick={() => addHeard([])}>+ empty</button>
  <button class="control" disabled={full} onclick={() => choose(false)}>+ chords of a .mid…</button>
  <button class="control" disabled={full} onclick={() => choose(true)}
    >+ progression of a .mid…</button
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
