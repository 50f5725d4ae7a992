<!-- @component The clock that an output gives, for machines that play in time with it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { ClockOut, Output } from "../../api/types";
  import { getOutputs } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  let { output }: { output: Output } = $props();

  const outputs = getOutputs();
  const clock = $derived(output.clock);

  function set(change: Partial<ClockOut>): Promise<void> {
    return outputs.change(output, (now) => ({ clock: { ...now.clock, ...change } }));
  }
</script>

<Section title="clock" summary={clock ? "sent" : ""}>
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={clock !== undefined}
    data-help="Send MIDI clock, 24 a quarter note, with start, stop, continue and song position, so that a machine plays in time."
    onclick={() => outputs.change(output, { clock: clock ? undefined : {} })}>send clock</button
  >
  {#if clock}
    <NumberRow
      label="clock offset"
      name="Offset of the clock"
      help="How much later than the beats the clock is sent, whatever the offset of the notes is; below 0 earlier."
      unit="ms"
      value={clock.offset ?? 0}
      {...bounds.ClockOut.offset}
      usual={0}
      commit={(offset) => set({ offset })}
    />
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={clock.whileStopped ?? false}
      data-help="Go on with the clock while nothing plays, at the tempo of the project."
      onclick={() => set({ whileStopped: !clock?.whileStopped })}>also while stopped</button
    >
    <ChoiceRow
      label="from a bar"
      name="What the machine is told where playing begins within the song"
      help="Playing from within the song is told as its position, or as a start for a machine that knows no positions."
      value={clock.starts ? "start" : "position"}
      choices={[
        { value: "position", label: "position, continue" },
        { value: "start", label: "start" },
      ]}
      select={(value) => set({ starts: value === "start" })}
    />
    <ChoiceRow
      label="at a jump"
      name="What the machine is told where the song jumps"
      help="Where the song jumps, as over a looped range, the machine runs on, or is told the position."
      value={clock.follows ? "position" : "on"}
      choices={[
        { value: "on", label: "runs on" },
        { value: "position", label: "stop, position, continue" },
      ]}
      select={(value) => set({ follows: value === "position" })}
    />
  {/if}
</Section>
