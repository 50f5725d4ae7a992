<!-- @component The frame of every screen, and the screen that the address names. -->
<script lang="ts">
  import { screenAt, screens } from "./views/screens";
  import { ChartView } from "./lib/state/chartView.svelte";
  import { Clipboard } from "./lib/state/clipboard.svelte";
  import {
    getSession,
    setChartView,
    setClipboard,
    setOutputs,
    setPlaying,
    setTakeDesk,
  } from "./lib/state/context";
  import { playFromKeys, releaseFromKeys, switchFromKeys } from "./lib/input/computerKeys";
  import { rememberAreas } from "./lib/state/areas";
  import { checkCopy } from "./lib/state/copyCheck.svelte";
  import { handKeysBack } from "./lib/state/focus";
  import { handleShortcut } from "./lib/state/shortcuts";
  import { Outputs } from "./lib/state/outputs.svelte";
  import { guardPlaying } from "./lib/state/whilePlaying.svelte";
  import { Playing } from "./lib/state/playing.svelte";
  import type { Theme } from "./lib/state/theme.svelte";
  import { TakeDesk } from "./lib/state/takeDesk.svelte";
  import KeyPanel from "./lib/components/keys/KeyPanel.svelte";
  import ProblemBar from "./lib/components/notices/ProblemBar.svelte";
  import TopBar from "./lib/components/top-bar/TopBar.svelte";
  import WakeStrip from "./lib/components/wake/WakeStrip.svelte";
  import StatusLine from "./lib/components/frame/StatusLine.svelte";

  import GoToDialog from "./lib/components/dialogs/GoToDialog.svelte";
  import HelpDialog from "./lib/components/dialogs/HelpDialog.svelte";
  import HistoryDialog from "./lib/components/dialogs/HistoryDialog.svelte";
  import KeyDialog from "./lib/components/dialogs/KeyDialog.svelte";
  import TimeDialog from "./lib/components/dialogs/TimeDialog.svelte";
  import LuckDialog from "./lib/components/dialogs/LuckDialog.svelte";
  import type { DialogName } from "./lib/components/dialogs/names";
  import RecordDialog from "./lib/components/dialogs/RecordDialog.svelte";
  import StageDialog from "./lib/components/dialogs/StageDialog.svelte";

  let { theme }: { theme: Theme } = $props();

  const dialogs = $state<Record<DialogName, boolean>>({
    time: false,
    help: false,
    goTo: false,
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
  guardPlaying(session, setOutputs(new Outputs(session)));
  const playing = setPlaying(new Playing(chart));

  let hash = $state(location.hash);
  $effect(() => handKeysBack(document));
  $effect(() => rememberAreas(document));
  const screen = $derived(screenAt(hash));
</script>

<svelte:window
  onpointerdowncapture={() => session.sound.again && void session.sound.start()}
  onblur={() => playing.releaseKeys()}
  onhashchange={() => (hash = location.hash)}
  onkeydowncapture={(event) => {
    if (session.sound.again) void session.sound.start();
    if (playFromKeys(event, playing) || switchFromKeys(event, playing)) event.stopPropagation();
  }}
  onkeydown={(event) =>
    handleShortcut(event, {
      session,
      view: chart,
      clipboard,
      takes: screen.address === "takes" ? takes : undefined,
      playing,
      openHelp: () => open("help"),
      openGoTo: () => screen.address === "write" && open("goTo"),
    })}
  onkeyup={(event) => {
    releaseFromKeys(event, playing);
    switchFromKeys(event, playing);
  }}
/>

<div
  class="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[52px_auto_minmax(0,1fr)_auto_38px_30px]"
>
  <TopBar {screens} {screen} {theme} {open} />
  <ProblemBar />
  <screen.component />
  {#if playing.open}<KeyPanel />{:else}<span></span>{/if}
  {#key session.document}<WakeStrip />{/key}
  <StatusLine openStage={() => open("stage")} performing={screen.address === "perform"} />
</div>
<RecordDialog bind:open={dialogs.record} />
<HelpDialog bind:open={dialogs.help} />
<GoToDialog bind:open={dialogs.goTo} />
<KeyDialog bind:open={dialogs.key} />
<TimeDialog bind:open={dialogs.time} />
<HistoryDialog bind:open={dialogs.history} />
<LuckDialog bind:open={dialogs.luck} />
<StageDialog bind:open={dialogs.stage} />
