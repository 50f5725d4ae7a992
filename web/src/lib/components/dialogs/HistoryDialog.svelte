<!-- @component All edits by name, the latest first; any place of the history can be gone to. -->
<script lang="ts">
  import { get } from "../../api/http";
  import type { Entry } from "../../api/types";
  import { getSession } from "../../state/context";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  let entries = $state.raw<Entry[]>([]);
  const present = $derived(entries.find((entry) => entry.done)?.position ?? 0);

  $effect(() => {
    const { revision } = session.snapshot;
    if (!open || revision === 0) return;
    const stale = new AbortController();
    get<Entry[]>("api/history", stale.signal)
      .then((list) => (entries = list))
      .catch(() => {}); // the page says elsewhere that the server is away
    return () => stale.abort();
  });

  async function older(): Promise<void> {
    const before = entries.at(-1)?.position ?? 0;
    entries = [...entries, ...(await get<Entry[]>(`api/history?before=${before}`))];
  }
</script>

<Dialog bind:open title="History">
  <p class="text-ink-2">
    Every edit is kept, also across restarts. Go to any place; what comes after it stays until you
    edit.
  </p>
  <ol class="border-line text-ink h-[400px] overflow-y-auto border" aria-label="Edits">
    {#each entries as entry (entry.position)}
      <li>
        <button
          class={[
            "flex w-full cursor-pointer gap-2 px-2 py-0.5 text-left",
            entry.position === present ? "bg-water font-semibold" : "hover:bg-paper-2",
            !entry.done && "text-ink-3",
          ]}
          aria-current={entry.position === present ? "true" : undefined}
          onclick={() => session.goTo(entry.position)}
        >
          <span class="w-[44px] text-right font-mono">{entry.position}</span>
          <span class="min-w-0 flex-1 truncate">{entry.label}</span>
          {#if !entry.done}<span class="caption">undone</span>{/if}
        </button>
      </li>
    {/each}
    {#if (entries.at(-1)?.position ?? 1) > 1}
      <li><button class="control m-1" onclick={older}>earlier edits</button></li>
    {:else}
      <li>
        <button
          class={[
            "w-full cursor-pointer px-2 py-0.5 text-left",
            present === 0 ? "bg-water font-semibold" : "hover:bg-paper-2",
          ]}
          onclick={() => session.goTo(0)}>the beginning</button
        >
      </li>
    {/if}
  </ol>
</Dialog>
