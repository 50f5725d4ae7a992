<!-- @component The open take's name, its own undo and redo, hearing it, and what of it is shown. -->
<script lang="ts">
  import { counted } from "../../counted";
  import type { Summary } from "../../api/types";
  import { getSession, getTakeDesk } from "../../state/context";
  import { keyZooms, zooms } from "../../state/takeWindow.svelte";

  let { summary }: { summary: Summary } = $props();

  const session = getSession();
  const desk = getTakeDesk();
  const loop = $derived(desk.loop);
  const made = $derived(
    loop
      ? "a loop that plays"
      : summary.revision
        ? `luck ${summary.luck}, revision ${summary.revision}`
        : "from a file",
  );
  const lastBar = $derived(Math.ceil(summary.bars));
</script>

<div class="border-line flex min-w-0 items-center gap-1.5 border-b px-3 py-1.5">
  <button
    class="control"
    aria-label={desk.hearing.playing ? "Stop the take" : "Hear the take"}
    data-help="Hear the take, from the selected stretch or the left edge on, while the project is stopped. Space"
    disabled={!desk.roll || loop !== undefined}
    onclick={() => desk.hear()}
  >
    <svg width="12" height="12" aria-hidden="true">
      <path d={desk.hearing.playing ? "M1 1h10v10h-10z" : "M2 0l10 6l-10 6z"} fill="currentColor" />
    </svg>
    {desk.hearing.playing ? "stop" : "hear"}
  </button>
  <input
    disabled={loop !== undefined}
    title={summary.name}
    class="control w-[190px] min-w-0 flex-1 font-sans! font-semibold text-ellipsis max-[1150px]:w-[120px]"
    maxlength="60"
    autocomplete="off"
    aria-label="Name of the take"
    data-help="The take's name, and that of its files."
    value={summary.name}
    onchange={(event) => {
      const name = event.currentTarget.value.trim();
      if (name && name !== summary.name) void desk.edit({ rename: { name } });
      else event.currentTarget.value = summary.name;
    }}
  />
  <span
    class="caption min-w-0 flex-1 truncate"
    title={made}
    data-help="What made the take: {made}. Under time it brings the project back as it was."
    >{made}</span
  >
  <button
    class="control"
    disabled={!summary.undo}
    aria-label={summary.undo ? `Undo ${summary.undo} in the take` : "Nothing to undo in the take"}
    data-help={summary.undo ? `Undo ${summary.undo}. Ctrl+Z` : "Nothing to undo in this take."}
    onclick={() => desk.undo()}>undo</button
  >
  <button
    class="control"
    disabled={!summary.redo}
    aria-label={summary.redo ? `Redo ${summary.redo} in the take` : "Nothing to redo in the take"}
    data-help={summary.redo
      ? `Redo ${summary.redo}. Ctrl+Shift+Z`
      : "Nothing to redo in this take."}
    onclick={() => desk.redo()}>redo</button
  >
  {#if loop}
    <button
      class="control"
      data-help="Clear the loop: the pattern plays again, where it would be by now."
      onclick={() => session.edit({ setLoop: { track: loop.id } })}>clear</button
    >
  {:else}
    <button
      class="control"
      data-help="Delete the take. It can be brought back in the list."
      onclick={() => session.shelf.setDeleted(summary, true)}>delete</button
    >
  {/if}
  <span class="ml-2 flex items-center gap-1">
    <button
      class="control"
      aria-label="Earlier"
      data-help="Earlier bars. The wheel does it too."
      onclick={() => desk.scroll(-Math.max(1, desk.bars / 2))}>‹</button
    >
    <span class="caption w-[74px] text-center font-mono"
      >{Math.round(desk.shown.first) + 1}–{Math.min(lastBar, Math.round(desk.shown.last))} of {lastBar}</span
    >
    <button
      class="control"
      aria-label="Later"
      data-help="Later bars. The wheel does it too."
      onclick={() => desk.scroll(Math.max(1, desk.bars / 2))}>›</button
    >
    <select
      class="control"
      aria-label="Bars shown"
      data-help="How many bars are shown."
      value={desk.bars}
      onchange={(event) => desk.zoom(Number(event.currentTarget.value))}
    >
      {#each zooms as bars (bars)}
        <option value={bars}>{counted(bars, "bar")}</option>
      {/each}
    </select>
    <select
      class="control"
      aria-label="Notes shown"
      data-help="How many notes are shown above each other: all that the take reaches, or some octaves. The wheel over their names, or Page up and down, shows higher and lower ones."
      value={desk.keyZoom}
      onchange={(event) => desk.zoomKeys(Number(event.currentTarget.value))}
    >
      <option value={0}>all notes</option>
      {#each keyZooms as keys (keys)}
        <option value={keys}>{counted(keys / 12, "octave")}</option>
      {/each}
    </select>
  </span>
</div>
