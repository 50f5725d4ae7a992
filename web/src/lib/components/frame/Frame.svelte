<!-- @component The frame of every screen, and the screen that the address names. -->
<script lang="ts">
  import Takes from "../../../views/Takes.svelte";
  import Write from "../../../views/Write.svelte";
  import { ChartView } from "../../state/chartView.svelte";
  import { Clipboard } from "../../state/clipboard.svelte";
  import {
    getSession,
    setChartView,
    setClipboard,
    setPlaying,
    setTakeDesk,
  } from "../../state/context";
  import { playFromKeys, releaseFromKeys } from "../../input/computerKeys";
  import { checkCopy } from "../../state/copyCheck.svelte";
  import { handKeysBack } from "../../state/focus";
  import { handleShortcut } from "../../state/shortcuts";
  import { Playing } from "../../state/playing.svelte";
  import { TakeDesk } from "../../state/takeDesk.svelte";
  import { Watch } from "../../state/watch.svelte";
  import KeyPanel from "../keys/KeyPanel.svelte";
  import ProblemBar from "../notices/ProblemBar.svelte";
  import TopBar from "../top-bar/TopBar.svelte";
  import WakeStrip from "../wake/WakeStrip.svelte";
  import StatusLine from "./StatusLine.svelte";

  import HelpDialog from "../dialogs/HelpDialog.svelte";
  import HistoryDialog from "../dialogs/HistoryDialog.svelte";
  import KeyDialog from "../dialogs/KeyDialog.svelte";
  import TimeDialog from "../dialogs/TimeDialog.svelte";
  import LuckDialog from "../dialogs/LuckDialog.svelte";
  import type { DialogName } from "../dialogs/names";
  import RecordDialog from "../dialogs/RecordDialog.svelte";
  import StageDialog from "../dialogs/StageDialog.svelte";
  import ProjectDialog from "../dialogs/ProjectDialog.svelte";

  const dialogs = $state<Record<DialogName, boolean>>({
    project: false,
    time: false,
    help: false,
    key: false,
    history: false,
    luck: false,
    record: false,
    stage: false,
  });
  const open = (dialog: DialogName) => (dialogs[dialog] = true);

  const session = getSession();
  checkCopy(session);
  const chart = setChartView(new ChartView(session));
  const clipboard = setClipboard(new Clipboard(chart));
  const takes = setTakeDesk(new TakeDesk(session));
  const playing = setPlaying(new Playing(chart));
  const watch = new Watch();

  let hash = $state(location.hash);
  $effect(() => handKeysBack(document));
  const view = $derived(hash === "#takes" ? "takes" : "write");
</script>

<svelte:window
  onpointerdowncapture={() => session.sound.again && void session.sound.start()}
  onhashchange={() => (hash = location.hash)}
  onkeydowncapture={(event) => {
    if (session.sound.again) void session.sound.start();
    if (playFromKeys(event, playing)) event.stopPropagation();
  }}
  onkeydown={(event) =>
    handleShortcut(event, {
      session,
      view: chart,
      clipboard,
      takes: view === "takes" ? takes : undefined,
      playing,
      openHelp: () => open("help"),
    })}
  onkeyup={(event) => releaseFromKeys(event, playing)}
/>

<div
  class="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[52px_auto_minmax(0,1fr)_auto_38px_30px]"
>
  <TopBar {view} {watch} {open} />
  <ProblemBar />
  {#if view === "takes"}<Takes />{:else}<Write />{/if}
  {#if playing.open}<KeyPanel />{:else}<span></span>{/if}
  <WakeStrip />
  <StatusLine openStage={() => open("stage")} />
</div>
<ProjectDialog bind:open={dialogs.project} />
<RecordDialog bind:open={dialogs.record} />
<HelpDialog bind:open={dialogs.help} />
<KeyDialog bind:open={dialogs.key} />
<TimeDialog bind:open={dialogs.time} />
<HistoryDialog bind:open={dialogs.history} />
<LuckDialog bind:open={dialogs.luck} />
<StageDialog bind:open={dialogs.stage} />
