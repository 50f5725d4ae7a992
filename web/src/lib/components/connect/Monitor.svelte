<!-- @component What went out to outputs and came in, in words, the latest first. -->
<script lang="ts">
  import { decoded } from "../../output/decoded";
  import { getOutputs, getSession } from "../../state/context";
  import type { Monitored } from "../../state/monitorLog.svelte";
  import { builtIn } from "../../state/outputRoutes.svelte";

  /** How many messages are shown. */
  const rows = 60;

  const session = getSession();
  const outputs = getOutputs();
  let only = $state("");
  let held = $state.raw<readonly Monitored[]>();
  const inputs = "inputs";
  const names = $derived(
    new Map([
      [builtIn, "Built-in sound"],
      ...outputs.list.map(({ id, name }): [number, string] => [id, name]),
    ]),
  );
  const messages = $derived(
    (held ?? session.monitor.list).filter(({ where }) => shows(where)).slice(0, rows),
  );

  function shows(where: number | string): boolean {
    return !only || (typeof where === "string" ? only === inputs : only === String(where));
  }

  function nameOf(where: number | string): string {
    return typeof where === "string" ? `from ${where}` : (names.get(where) ?? "removed");
  }
</script>

<section
  data-area
  class="border-line grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t"
  aria-label="Monitor"
>
  <div class="flex items-center gap-2 px-4 py-1.5">
    <h2 class="font-semibold">Monitor</h2>
    <select class="control" aria-label="What to monitor" bind:value={only}>
      <option value="">everything</option>
      {#each names as [id, name] (id)}
        <option value={String(id)}>{name}</option>
      {/each}
      <option value={inputs}>{inputs}</option>
    </select>
    <button
      class="control"
      aria-pressed={held !== undefined}
      data-help="Keep what is shown, while playing goes on."
      onclick={() => (held = held ? undefined : session.monitor.list)}>pause</button
    >
  </div>
  <div class="min-h-0 overflow-y-auto px-4 pb-2 font-mono text-[12px]" role="log" aria-live="off">
    {#each messages as { id, page, where, data } (id)}
      <div class="grid grid-cols-[90px_150px_60px_minmax(0,1fr)_120px] gap-2">
        <span class="text-ink-2">{(page / 1000).toFixed(3)} s</span>
        <span class="truncate">{nameOf(where)}</span>
        <span>ch {((data[0] ?? 0) & 0xf) + 1}</span>
        <span class="truncate"
          >{decoded(data, (key) => session.notes.name(key), session.programs.show)}</span
        >
        <span class="text-ink-2"
          >{data.map((byte) => byte.toString(16).padStart(2, "0")).join(" ")}</span
        >
      </div>
    {:else}
      <p class="text-ink-2 font-sans text-[13px]">What goes out and what comes in appear here.</p>
    {/each}
  </div>
</section>
