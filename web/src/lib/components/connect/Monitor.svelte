<!-- @component What was sent to ports and devices, in words, the latest first. -->
<script lang="ts">
  import { decoded } from "../../output/decoded";
  import { getOutputs, getSession } from "../../state/context";
  import type { Sent } from "../../state/sentMessages.svelte";

  /** How many messages are shown. */
  const rows = 60;

  const session = getSession();
  const outputs = getOutputs();
  let only = $state("");
  let held = $state.raw<readonly Sent[]>();
  const names = $derived(new Map(outputs.list.map(({ id, name }) => [id, name])));
  const messages = $derived(
    (held ?? outputs.sent.list)
      .filter(({ output }) => !only || names.get(output) === only)
      .slice(0, rows),
  );
</script>

<section
  class="border-line grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t"
  aria-label="Monitor"
>
  <div class="flex items-center gap-2 px-4 py-1.5">
    <h2 class="font-semibold">Monitor</h2>
    <select class="control" aria-label="Output to monitor" bind:value={only}>
      <option value="">all outputs</option>
      {#each outputs.list as { id, name } (id)}
        <option value={name}>{name}</option>
      {/each}
    </select>
    <button
      class="control"
      aria-pressed={held !== undefined}
      data-help="Keep what is shown, while playing goes on."
      onclick={() => (held = held ? undefined : outputs.sent.list)}>pause</button
    >
  </div>
  <div class="min-h-0 overflow-y-auto px-4 pb-2 font-mono text-[12px]" role="log" aria-live="off">
    {#each messages as { id, page, output, data } (id)}
      <div class="grid grid-cols-[90px_150px_60px_minmax(0,1fr)_120px] gap-2">
        <span class="text-ink-2">{(page / 1000).toFixed(3)} s</span>
        <span class="truncate">{names.get(output) ?? "removed"}</span>
        <span>ch {((data[0] ?? 0) & 0xf) + 1}</span>
        <span class="truncate">{decoded(data, (key) => session.notes.name(key))}</span>
        <span class="text-ink-2"
          >{data.map((byte) => byte.toString(16).padStart(2, "0")).join(" ")}</span
        >
      </div>
    {:else}
      <p class="text-ink-2 font-sans text-[13px]">
        What is sent to MIDI ports of this page and to devices of the server appears here.
      </p>
    {/each}
  </div>
</section>
