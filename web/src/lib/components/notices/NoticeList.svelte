<!-- @component Sentences for the user, over everything else: in the dialog that is open, or on the page. -->
<script lang="ts">
  import { untrack } from "svelte";
  import Toast from "flowbite-svelte/Toast.svelte";
  import { getSession } from "../../state/context";

  let { inDialog = false }: { inDialog?: boolean } = $props();

  const { notices } = getSession();

  $effect(() => {
    if (!inDialog) return;
    untrack(() => notices.dialogs++);
    return () => notices.dialogs--;
  });
</script>

{#if inDialog || notices.dialogs === 0}
  <div class="fixed right-4 bottom-[76px] z-50 flex flex-col gap-2" aria-live="polite">
    {#each notices.list as notice (notice.id)}
      <Toast
        class="border-signal max-w-md! rounded! border-l-4 p-3!"
        aria-label="Notice"
        onclose={() => notices.remove(notice.id)}
      >
        <span class="text-ink">{notice.text}</span>
      </Toast>
    {/each}
  </div>
{/if}
