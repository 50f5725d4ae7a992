<script lang="ts">
  import Frame from "./Frame.svelte";
  import NoticeList from "./lib/components/notices/NoticeList.svelte";
  import { setSession } from "./lib/state/context";
  import { Theme } from "./lib/state/theme.svelte";
  import { Session } from "./lib/state/session.svelte";

  const theme = new Theme();
  const session = setSession(new Session());
</script>

{#if session.ready}
  <Frame {theme} />
{:else}
  <p class="text-ink-2 p-6">Jettyfog is loading…</p>
{/if}
<NoticeList />
