<!-- @component A sheet of pages, one of which is open. -->
<script lang="ts" generics="Name extends string">
  import type { Snippet } from "svelte";
  import { tabKeys } from "../../input/tabKeys";

  interface Props {
    /** Begins the ids of its elements. */
    id: string;
    pages: readonly { name: Name; help: string }[];
    page: Name;
    open: (page: Name) => void;
    children: Snippet;
  }
  let { id, pages, page, open, children }: Props = $props();
</script>

<aside
  data-area
  class="border-line bg-paper-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-l"
  aria-label="Sheet"
>
  <div
    class="border-line flex border-b px-2 pt-1.5"
    role="tablist"
    aria-label="Sheet"
    {@attach tabKeys}
  >
    {#each pages as { name, help } (name)}
      <button
        class={[
          "flex-1 cursor-pointer border-b-2 px-1 pb-1",
          page === name ? "border-signal font-semibold" : "text-ink-2 border-transparent",
        ]}
        role="tab"
        id="{id}-tab-{name}"
        aria-selected={page === name}
        tabindex={page === name ? 0 : -1}
        aria-controls="{id}-page"
        data-help={help}
        onclick={() => open(name)}>{name}</button
      >
    {/each}
  </div>
  <div
    class="min-h-0 overflow-y-auto px-3 py-2"
    id="{id}-page"
    role="tabpanel"
    aria-labelledby="{id}-tab-{page}"
    tabindex="-1"
  >
    {@render children()}
  </div>
</aside>
