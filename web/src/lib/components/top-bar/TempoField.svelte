<!-- @component The tempo: typed, dragged, stepped or tapped. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  /** The tempo that plays, where it is not the one that is written. */
  const now = $derived.by(() => {
    const ticks = session.transport.ticksPerMilli;
    if (ticks === undefined) return "";
    const bpm = (ticks * 60_000) / session.lists.ticksPerQuarter;
    return Math.abs(bpm - session.project.tempo / 1000) < 0.005 ? "" : `, now ${bpm.toFixed(1)}`;
  });
</script>

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
