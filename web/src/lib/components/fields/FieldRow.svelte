<!-- @component A line of the sheet: what it is called, and the controls for it. -->
<script lang="ts">
  import type { Snippet } from "svelte";

  let { label, help, children }: { label: string; help?: string; children: Snippet } = $props();
</script>

<div class="flex min-h-[29px] items-center justify-between gap-2" data-help={help}>
  <span class="min-w-0 truncate">{label}</span>
  <span class="flex shrink-0 items-center gap-1">{@render children()}</span>
</div>
