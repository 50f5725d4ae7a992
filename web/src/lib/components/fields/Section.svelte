<!-- @component A part of the sheet under a heading; it can be folded away, and stays so in this browser. -->
<script lang="ts">
  import { untrack, type Snippet } from "svelte";

  interface Props {
    title: string;
    /** What the section holds, in few words, shown while it is folded. */
    summary?: string;
    children: Snippet;
  }
  let { title, summary = "", children }: Props = $props();

  const stored = untrack(() => `jettyfog section ${title}`);
  const initially = localStorage.getItem(stored) !== "folded";

  function remember(event: Event & { currentTarget: HTMLDetailsElement }): void {
    localStorage.setItem(stored, event.currentTarget.open ? "open" : "folded");
  }
</script>

<details class="border-line group border-t py-1" open={initially} ontoggle={remember}>
  <summary class="flex cursor-pointer items-baseline gap-2 py-0.5 text-[13px] font-semibold">
    <span class="text-ink-3 w-2 transition-transform group-open:rotate-90" aria-hidden="true"
      >›</span
    >
    {title}
    <span class="caption min-w-0 flex-1 truncate text-right font-normal group-open:hidden">
      {summary}
    </span>
  </summary>
  {@render children()}
</details>
