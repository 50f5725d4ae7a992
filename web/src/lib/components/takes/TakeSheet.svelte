<!-- @component What can be done to the open take: to its notes, to its time, by numbers, and as files. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getTakeDesk } from "../../state/context";
  import type { TakePage } from "../../state/takeDesk.svelte";
  import SheetTabs from "../sheet/SheetTabs.svelte";
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
    { name: "files", help: "Export the take." },
  ];
  const pages = $derived(desk.loop ? all.slice(0, 1) : all);
  const page = $derived(desk.loop ? "notes" : desk.page);
</script>

<SheetTabs id="take" {pages} {page} open={(page) => (desk.page = page)}>
  {#if page === "notes"}<TakeNotes />
  {:else if page === "time"}<TakeTime {summary} />
  {:else if page === "steps"}<TakeSteps {summary} />
  {:else if page === "numbers"}<TakeNumbers {summary} />
  {:else}<TakeFiles {summary} />{/if}
</SheetTabs>
