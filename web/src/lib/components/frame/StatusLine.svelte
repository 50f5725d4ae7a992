<!-- @component The foot of the page: when the loops meet, what is pointed at, and the health of the output. -->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import { counted } from "../../counted";
  import { getChartView, getPlaying, getSession } from "../../state/context";
  import StageBar from "../stage/StageBar.svelte";

  let { openStage, performing }: { openStage: () => void; performing: boolean } = $props();

  const session = getSession();
  const playing = getPlaying();
  const view = getChartView();

  let help = $state("");

  const never = $derived(view.chart?.period.never);
  const repeats = $derived.by(() => {
    const { repeats, projectRepeats } = view.chart ?? {};
    if (!repeats || !projectRepeats) return "";
    if (repeats.never) return `It never repeats: ${repeats.never}.`;
    const all = projectRepeats.never
      ? `all tracks together never do: ${projectRepeats.never}`
      : `all tracks together every ${counted(projectRepeats.ticks / session.bars.length, "bar")}`;
    return `It repeats every ${counted(repeats.ticks / session.bars.length, "bar")}, ${all}.`;
  });

  /** While playing, the bar in which they meet next. */
  const next = $derived.by(() => {
    const period = view.chart?.period.ticks ?? 0;
    const tick = view.standing(session.part.id, gateLane)?.tick;
    if (tick === undefined || period === 0) return "";
    const meeting = (Math.floor(tick / period) + 1) * period;
    return `, next in bar ${(session.bars.at(meeting) + 1).toLocaleString("en")}`;
  });

  const sounds = $derived(session.player.sounds);
  const health = $derived.by(() => {
    if (!session.connected) return "Jettyfog does not answer; trying again";
    if (sounds) return "built-in sound: on in this page";
    return session.player.ready || session.transport.playing
      ? "built-in sound: off in this page"
      : "built-in sound: starts with Play";
  });

  /** Shows the help of whatever is pointed at or has the focus. */
  function pointAt(event: Event): void {
    const target = event.target instanceof Element ? event.target.closest("[data-help]") : null;
    help =
      target instanceof HTMLElement || target instanceof SVGElement
        ? (target.dataset.help ?? "")
        : "";
  }
</script>

<svelte:window onpointerover={pointAt} onfocusin={pointAt} />

<footer data-area class="border-ink text-ink-2 flex h-[30px] items-center gap-4 border-t-2 px-3">
  <span
    class="max-w-[30%] truncate whitespace-nowrap"
    data-period={view.chart?.period.ticks}
    data-help={repeats}
    title={repeats}
  >
    {#if session.transport.opening}
      <b class="text-ink font-semibold">{session.project.name}</b> begins with the next bar
    {:else if never}
      The lanes do not repeat together for sure: {never}
    {:else if view.chart}
      All lanes together repeat after
      <b class="text-ink font-semibold"
        >{counted(view.chart.period.ticks / session.bars.length, "bar")}</b
      >{next}
    {/if}
  </span>
  <span class="min-w-0 flex-1 truncate text-center">{help}</span>
  <StageBar open={openStage} brief={performing} />
  <button
    class="control h-[22px]! text-[12px]!"
    aria-pressed={playing.open}
    data-help="A keyboard on the screen and other inputs: play notes, and enter them into steps. N"
    onclick={() => playing.toggle()}>keyboard</button
  >
  <span
    class={[
      "flex items-center gap-1.5 whitespace-nowrap",
      !session.connected && "text-signal font-semibold",
    ]}
    role="status"
  >
    <span
      class={[
        "inline-block h-2 w-2 rounded-full",
        session.connected && sounds ? "bg-sounding" : "border-ink-3 border",
      ]}
    ></span>
    {health}
  </span>
  {#if session.connected}
    <button
      class="control h-[22px]! text-[12px]!"
      aria-label="Sound in this page"
      aria-pressed={sounds}
      data-help="Have what is played sound on the built-in sound in this page, or leave it to other pages."
      onclick={() => session.sound.here(!sounds)}>sound</button
    >
  {/if}
</footer>
