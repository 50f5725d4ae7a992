<!-- @component The list of takes, to carry away as Standard MIDI Files. -->
<script lang="ts">
  import Table from "flowbite-svelte/Table.svelte";
  import TableBody from "flowbite-svelte/TableBody.svelte";
  import TableBodyCell from "flowbite-svelte/TableBodyCell.svelte";
  import TableBodyRow from "flowbite-svelte/TableBodyRow.svelte";
  import TableHead from "flowbite-svelte/TableHead.svelte";
  import TableHeadCell from "flowbite-svelte/TableHeadCell.svelte";
  import { getSession } from "../lib/state/context";

  const session = getSession();

  let midi = $state<HTMLInputElement>();

  const headings = ["take", "recorded", "length", "notes", "luck", "files"];
  const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });
  const files = [
    {
      name: "960",
      query: "",
      help: "Format 1, 960 ticks a quarter note: what most programs like best.",
    },
    {
      name: "exact",
      query: "?division=20160",
      help: "Format 1, 20160 ticks a quarter note: nothing is rounded.",
    },
    {
      name: "one track",
      query: "?format=0",
      help: "Format 0, all in one track, 960 ticks a quarter note.",
    },
  ];

  async function load(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    if (file) await session.importMidi(file);
    input.value = "";
  }

  function length(seconds: number): string {
    const minutes = Math.floor(seconds / 60);
    return `${minutes}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;
  }
</script>

<main class="min-h-0 overflow-y-auto p-4">
  <div class="mb-3 flex items-center gap-4">
    <h1 class="text-[17px] font-semibold">Takes</h1>
    <button
      class="control"
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
  {#if session.takes.length === 0}
    <p class="text-ink-2 max-w-[520px]">
      There is no take yet. Press R, or the red button above, and what you hear from then on is
      recorded, until you press R again or stop. A take is kept as soon as it is recorded.
    </p>
  {:else}
    <Table divClass="relative max-w-[980px]" striped={false}>
      <TableHead class="normal-case!">
        {#each headings as heading (heading)}
          <TableHeadCell class="px-3! py-2! font-normal">{heading}</TableHeadCell>
        {/each}
      </TableHead>
      <TableBody>
        {#each session.takes as take (take.id)}
          <TableBodyRow>
            <TableBodyCell class="px-3! py-2! font-semibold!">{take.name}</TableBodyCell>
            <TableBodyCell class="px-3! py-2!">{day.format(take.created * 1000)}</TableBodyCell>
            <TableBodyCell class="px-3! py-2!">
              <span class="font-mono">{length(take.seconds)}</span>
              <span class="text-ink-2">· {take.bars.toFixed(1)} bars</span>
            </TableBodyCell>
            <TableBodyCell class="px-3! py-2! font-mono">{take.notes}</TableBodyCell>
            <TableBodyCell class="px-3! py-2! font-mono">{take.luck}</TableBodyCell>
            <TableBodyCell class="px-3! py-2!">
              <span class="flex gap-1">
                {#each files as file (file.name)}
                  <a
                    class="control"
                    href="api/takes/{take.id}.mid{file.query}"
                    download
                    data-help={file.help}>{file.name}</a
                  >
                {/each}
                <a
                  class="control"
                  href="api/takes/{take.id}.csv"
                  download
                  data-help="A table of all messages, for a spreadsheet.">csv</a
                >
              </span>
            </TableBodyCell>
          </TableBodyRow>
        {/each}
      </TableBody>
    </Table>
  {/if}
</main>
