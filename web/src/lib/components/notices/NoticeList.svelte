<!-- @component Sentences for the user, over everything else but dialogs. -->
<script lang="ts">
  import Toast from "flowbite-svelte/Toast.svelte";
  import { getSession } from "../../state/context";

  const { notices } = getSession();
</script>

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
