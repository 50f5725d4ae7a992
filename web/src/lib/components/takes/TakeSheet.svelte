<!-- @component What can be done to the open take: to its notes, to its time, by numbers, and as files. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getTakeDesk } from "../../state/context";
  import type { TakePage } from "../../state/takeDesk.svelte";
  import TakeFiles from "./TakeFiles.svelte";
  import TakeNotes from "./TakeNotes.svelte";
  import TakeNumbers from "./TakeNumbers.svelte";
  import TakeTime from "./TakeTime.svelte";

  let { summary }: { summary: Summary } = $props();

  const desk = getTakeDesk();
  const pages: { name: TakePage; help: string }[] = [
    { name: "notes", help: "Correct notes: grid, scale, pitch, length, controllers." },
    { name: "time", help: "Trim, cut and split the take, and go back to what made it." },
    { name: "numbers", help: "Count the take, and compare it with another." },
    { name: "files", help: "Carry the take away." },
  ];
</script>

<aside
  class="border-line bg-paper-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-l"
  aria-label="Sheet"
>
  <div class="border-line flex border-b px-2 pt-1.5" role="tablist" aria-label="Sheet">
    {#each pages as { name, help } (name)}
      <button
        class={[
          "flex-1 cursor-pointer border-b-2 px-1 pb-1",
          desk.page === name ? "border-signal font-semibold" : "text-ink-2 border-transparent",
        ]}
        role="tab"
        id="take-tab-{name}"
        aria-selected={desk.page === name}
        aria-controls="take-page"
        data-help={help}
        onclick={() => (desk.page = name)}>{name}</button
      >
    {/each}
  </div>
  <div
    class="min-h-0 overflow-y-auto px-3 py-2"
    id="take-page"
    role="tabpanel"
    aria-labelledby="take-tab-{desk.page}"
    tabindex="-1"
  >
    {#if desk.page === "notes"}<TakeNotes />
    {:else if desk.page === "time"}<TakeTime {summary} />
    {:else if desk.page === "numbers"}<TakeNumbers {summary} />
    {:else}<TakeFiles {summary} />{/if}
  </div>
</aside>
