<script lang="ts">
  import Frame from "./lib/components/frame/Frame.svelte";
  import NoticeList from "./lib/components/notices/NoticeList.svelte";
  import { setSession } from "./lib/state/context";
  import { Session } from "./lib/state/session.svelte";

  const session = setSession(new Session());
</script>

{#if session.ready}
  <Frame />
{:else}
  <p class="text-ink-2 p-6">Jettyfog is loading…</p>
{/if}
<NoticeList />
