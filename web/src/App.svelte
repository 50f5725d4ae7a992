<script lang="ts">
  import HelpDialog from "./lib/components/dialogs/HelpDialog.svelte";
  import Frame from "./lib/components/frame/Frame.svelte";
  import ProjectDialog from "./lib/components/dialogs/ProjectDialog.svelte";
  import NoticeList from "./lib/components/notices/NoticeList.svelte";
  import { setSession } from "./lib/state/context";
  import { Session } from "./lib/state/session.svelte";

  const session = setSession(new Session());
  let projectOpen = $state(false);
  let helpOpen = $state(false);
</script>

{#if session.ready}
  <Frame openProject={() => (projectOpen = true)} openHelp={() => (helpOpen = true)} />
  <ProjectDialog bind:open={projectOpen} />
  <HelpDialog bind:open={helpOpen} />
{:else}
  <p class="text-ink-2 p-6">Jettyfog is being unrolled…</p>
{/if}
<NoticeList />
