<!-- @component The tempo: typed, dragged, stepped or tapped. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  const clock = $derived(session.transport.clock);
  const leads = $derived(session.inputs.list.find(({ id }) => id === clock?.input)?.name ?? "");
  const stateWords: Record<string, string> = {
    ...{ silent: "no clock", comes: "comes", waits: "waits for start" },
    ...{ leads: "follows", joins: "joins", lost: "lost" },
  };
  /** The tempo that plays, where it is not the one that is written. */
  const now = $derived.by(() => {
    const ticks = session.transport.ticksPerMilli;
    if (ticks === undefined) return "";
    const bpm = (ticks * 60_000) / session.lists.ticksPerQuarter;
    return Math.abs(bpm - session.project.tempo / 1000) < 0.005 ? "" : `, now ${bpm.toFixed(1)}`;
  });
</script>

{#if clock}
  <div
    data-help="The tempo is that of the clock at {leads}: {session.transport
      .clockWords}. Connect says which clock is followed."
  >
    <div class="caption max-w-[128px] truncate font-semibold max-[1150px]:max-w-[92px]">
      tempo of {leads}
    </div>
    <div class="flex gap-1">
      <output
        class="control pointer-events-none font-mono whitespace-nowrap"
        aria-label="Tempo that is followed"
        data-clock={clock.state}
        >{clock.tempo ? (clock.tempo / 1000).toFixed(1) : "—"}
        <span class={["font-sans text-[11px]", clock.state === "leads" && "max-[1150px]:hidden"]}
          >{stateWords[clock.state] ?? ""}</span
        ></output
      >
      {#if clock.state === "waits" && clock.tempo}
        <button
          class="control px-1!"
          aria-label="Begin now, without its start"
          data-help="Begin with the next beat of the clock, without its start."
          onclick={() => session.song.play()}>now</button
        >
      {/if}
    </div>
  </div>
{:else}
  <div>
    <div class={["caption whitespace-nowrap", now && "font-semibold"]}>tempo{now}</div>
    <div class="flex gap-1">
      <NumberField
        label="Tempo in beats per minute"
        help="Tempo in quarter notes a minute: type, drag up and down, or use the arrow keys."
        value={session.project.tempo / 1000}
        {...scaled(bounds.Project.tempo, 1000)}
        decimals={2}
        width="6ch"
        commit={(tempo) => session.setTempo(tempo)}
      />
      <button
        class="control px-1!"
        data-help="Tap the tempo, twice or more. B"
        aria-label="Tap tempo"
        onclick={() => session.tempoTap.tap()}>tap</button
      >
    </div>
  </div>
{/if}
