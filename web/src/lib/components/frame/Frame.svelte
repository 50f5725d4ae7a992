<!-- @component The frame of every screen, and the screen that the address names. -->
<script lang="ts">
  import Takes from "../../../views/Takes.svelte";
  import Write from "../../../views/Write.svelte";
  import { ChartView } from "../../state/chartView.svelte";
  import { getSession, setChartView } from "../../state/context";
  import { handleShortcut } from "../../state/shortcuts";
  import { Watch } from "../../state/watch.svelte";
  import TopBar from "../top-bar/TopBar.svelte";
  import StatusLine from "./StatusLine.svelte";

  interface Props {
    openProject: () => void;
    openHelp: () => void;
  }
  let { openProject, openHelp }: Props = $props();

  const session = getSession();
  const chart = setChartView(new ChartView(session));
  const watch = new Watch();

  let hash = $state(location.hash);
  const view = $derived(hash === "#takes" ? "takes" : "write");
</script>

<svelte:window
  onhashchange={() => (hash = location.hash)}
  onkeydown={(event) => handleShortcut(event, session, chart, openHelp)}
/>

<div class="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[52px_minmax(0,1fr)_30px]">
  <TopBar {view} {watch} {openProject} {openHelp} />
  {#if view === "takes"}<Takes />{:else}<Write />{/if}
  <StatusLine />
</div>
