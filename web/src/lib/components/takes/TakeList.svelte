<!-- @component The kept takes, those that are out of the way, and a way to bring one in from a file. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import RenderFields from "./RenderFields.svelte";
  import { getSession, getTakeDesk } from "../../state/context";

  const session = getSession();
  const desk = getTakeDesk();

  let midi = $state<HTMLInputElement>();
  let showDeleted = $state(false);

  const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });
  const kept = $derived(session.shelf.takes.filter((take) => !take.deleted));
  const loops = $derived(session.project.tracks.filter((track) => track.loop));
  const deleted = $derived(session.shelf.takes.filter((take) => take.deleted));

  async function load(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    if (file) await session.shelf.importMidi(file);
    input.value = "";
  }

  function length({ seconds }: Summary): string {
    const minutes = Math.floor(seconds / 60);
    return `${minutes}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;
  }
</script>

<aside
  data-area
  class="border-line bg-paper-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)_auto] border-r"
  aria-label="List of takes"
>
  <div class="flex items-center justify-between gap-2 px-3 py-2">
    <h1 class="text-[14px] font-semibold">Takes</h1>
    <button
      class="control h-[22px]! text-[11px]!"
      data-help="Make a take of a Standard MIDI File of any format."
      onclick={() => midi?.click()}>import .mid…</button
    >
    <input
      type="file"
      accept=".mid,.midi,audio/midi"
      class="hidden"
      aria-label="File to import"
      bind:this={midi}
      onchange={(event) => load(event.currentTarget)}
    />
  </div>
  <div class="min-h-0 overflow-y-auto">
    {#if loops.length}
      <p class="caption px-3">loops that play</p>
      <ul class="mb-2">
        {#each loops as track (track.id)}
          {@const open = desk.loop?.id === track.id}
          <li class={["border-l-4", open ? "border-signal bg-paper" : "border-transparent"]}>
            <button
              class="w-full cursor-pointer truncate px-2 py-1 text-left"
              aria-current={open ? "true" : undefined}
              data-help="Edit the loop that this track plays."
              onclick={() => desk.open(-track.id)}>{track.name}</button
            >
          </li>
        {/each}
      </ul>
    {/if}
    <ul>
      {#each kept as take (take.id)}
        {@const open = take.id === desk.summary?.id}
        <li class={["border-l-4", open ? "border-signal bg-paper" : "border-transparent"]}>
          <button
            class="w-full cursor-pointer px-2 py-1.5 text-left"
            aria-current={open ? "true" : undefined}
            data-help="Open this take."
            onclick={() => desk.open(take.id)}
          >
            <span class={["block truncate", open && "font-semibold"]} title={take.name}
              >{take.name}</span
            >
            <span class="caption block">{day.format(take.created * 1000)}</span>
            <span class="caption block font-mono"
              >{length(take)} · {take.bars.toFixed(1)} bars · {take.notes} notes</span
            >
          </button>
        </li>
      {/each}
    </ul>
    {#if deleted.length}
      <button
        class="caption mt-2 cursor-pointer px-3 py-1 underline"
        aria-expanded={showDeleted}
        data-help="Takes that were deleted. Nothing of them is lost."
        onclick={() => (showDeleted = !showDeleted)}>deleted takes ({deleted.length})</button
      >
      {#if showDeleted}
        <ul>
          {#each deleted as take (take.id)}
            <li class="flex items-center gap-1 py-0.5 pr-2 pl-3">
              <span class="text-ink-2 min-w-0 flex-1 truncate" title={take.name}>{take.name}</span>
              <button
                class="control h-[22px]! text-[11px]!"
                aria-label="Bring {take.name} back"
                onclick={() => session.shelf.setDeleted(take, false)}>bring back</button
              >
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
  </div>
  <RenderFields />
</aside>
