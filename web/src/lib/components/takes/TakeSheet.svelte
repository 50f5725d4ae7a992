<!-- @component What can be done to the open take: to its notes, to its time, by numbers, and as files. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getTakeDesk } from "../../state/context";
  import type { TakePage } from "../../state/takeDesk.svelte";
  import TakeFiles from "./TakeFiles.svelte";
  import TakeNotes from "./TakeNotes.svelte";
  import TakeSteps from "./TakeSteps.svelte";
  import TakeNumbers from "./TakeNumbers.svelte";
  import TakeTime from "./TakeTime.svelte";

  let { summary }: { summary: Summary } = $props();

  const desk = getTakeDesk();
  const all: { name: TakePage; help: string }[] = [
    { name: "notes", help: "Correct notes: grid, scale, pitch, length, controllers." },
    { name: "time", help: "Trim, cut and split the take, and go back to what made it." },
    { name: "steps", help: "Write a pattern of it, or take its notes as the scale." },
    { name: "numbers", help: "Count the take, and compare it with another." },
    { name: "files", help: "Carry the take away." },
  ];
  const pages = $derived(desk.loop ? all.slice(0, 1) : all);
  const page = $derived(desk.loop ? "notes" : desk.page);
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
          page === name ? "border-signal font-semibold" : "text-ink-2 border-transparent",
        ]}
        role="tab"
        id="take-tab-{name}"
        aria-selected={page === name}
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
    aria-labelledby="take-tab-{page}"
    tabindex="-1"
  >
    {#if page === "notes"}<TakeNotes />
    {:else if page === "time"}<TakeTime {summary} />
    {:else if page === "steps"}<TakeSteps {summary} />
    {:else if page === "numbers"}<TakeNumbers {summary} />
    {:else}<TakeFiles {summary} />{/if}
  </div>
</aside>
