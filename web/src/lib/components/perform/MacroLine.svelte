<!-- @component The macros that were made, in one line. -->
<script lang="ts">
  import type { Perform } from "../../state/perform.svelte";
  import MacroGauge from "./MacroGauge.svelte";

  let { perform }: { perform: Perform } = $props();
</script>

<div
  class="border-line flex items-center gap-1.5 overflow-x-auto border-t px-3 py-1.5"
  role="group"
  aria-label="Macros"
>
  {#each perform.movers.macros as macro (macro.id)}<MacroGauge {macro} {perform} />{/each}
</div>
