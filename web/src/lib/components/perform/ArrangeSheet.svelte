<!-- @component Where the song and its scenes are written. -->
<script lang="ts">
  import type { Perform } from "../../state/perform.svelte";
  import SheetTabs from "../sheet/SheetTabs.svelte";
  import SceneFields from "./SceneFields.svelte";
  import SectionFields from "./SectionFields.svelte";

  let { perform }: { perform: Perform } = $props();

  const pages = [
    { name: "section", help: "A section of the song: how long it plays which scene." },
    { name: "scene", help: "A scene: the values that it gives to controls." },
  ] as const;
</script>

<SheetTabs id="arrange" {pages} page={perform.page} open={(page) => (perform.page = page)}>
  {#if perform.page === "section"}<SectionFields {perform} />{:else}<SceneFields {perform} />{/if}
</SheetTabs>
