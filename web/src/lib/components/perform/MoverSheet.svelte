<!-- @component Where macros and modulators are written. -->
<script lang="ts">
  import type { Perform } from "../../state/perform.svelte";
  import SheetTabs from "../sheet/SheetTabs.svelte";
  import MacroFields from "./MacroFields.svelte";
  import ModulatorFields from "./ModulatorFields.svelte";

  let { perform }: { perform: Perform } = $props();

  const pages = [
    { name: "macro", help: "A macro: several controls that one hand moves." },
    { name: "modulator", help: "A modulator: what moves controls by itself." },
  ] as const;
</script>

<SheetTabs id="movers" {pages} page={perform.moverPage} open={(page) => (perform.moverPage = page)}>
  {#if perform.moverPage === "macro"}<MacroFields {perform} />{:else}<ModulatorFields
      {perform}
    />{/if}
</SheetTabs>
