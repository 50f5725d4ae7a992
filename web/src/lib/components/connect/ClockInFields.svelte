<!-- @component Whether the clock of an input is followed, and how. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { ClockIn, Input } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  let { input }: { input: Input } = $props();

  const session = getSession();
  const clock = $derived(session.project.clockIn ?? {});
  const follows = $derived(clock.input === input.id);
  const pulses = $derived(clock.from === "note" || clock.from === "control");

  function set(change: Partial<ClockIn>): Promise<void> {
    return session.edit(() => ({
      setProject: { clockIn: { ...(session.project.clockIn ?? {}), ...change } },
    }));
  }
</script>

<Section title="clock source" summary={follows ? "followed" : ""}>
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={follows}
    data-help="Play in time with the clock that comes in here, and start, stop and go on as it says. One clock is followed at a time."
    onclick={() => set({ input: follows ? 0 : input.id })}>follow its clock</button
  >
  {#if follows}
    <p class="text-ink-2 py-0.5" data-clock-state>{session.transport.clockWords}</p>
    <ChoiceRow
      label="made of"
      name="What the clock is made of"
      help="MIDI clock with start, stop, continue and positions; or notes or a controller that come so many times a quarter note."
      value={clock.from || "clock"}
      choices={[
        { value: "clock", label: "MIDI clock" },
        { value: "note", label: "notes" },
        { value: "control", label: "a controller" },
      ]}
      select={(from) =>
        set({ from: from as ClockIn["from"], ...(from === "clock" ? {} : { perQuarter: 4 }) })}
    />
    {#if pulses}
      <NumberRow
        label={clock.from === "note" ? "note" : "CC"}
        name="Note or controller of the clock"
        help="The number of the note that is struck, or of the controller that comes up from below 64, with each pulse."
        value={clock.number ?? 0}
        {...bounds.ClockIn.number}
        commit={(number) => set({ number })}
      />
      <NumberRow
        label="channel"
        name="Channel of the clock"
        help="The MIDI channel of the pulses; 0 is any."
        value={clock.channel ?? 0}
        {...bounds.ClockIn.channel}
        usual={0}
        commit={(channel) => set({ channel })}
      />
      <NumberRow
        label="pulses a quarter"
        name="Pulses a quarter note"
        help="How many pulses come in a quarter note. Playing begins with the first pulse after a silence."
        value={Math.max(1, clock.perQuarter ?? 1)}
        min={1}
        max={bounds.ClockIn.perQuarter.max}
        commit={(perQuarter) => set({ perQuarter })}
      />
    {/if}
    <NumberRow
      label="offset"
      name="Offset of the followed clock"
      help="How much later than its pulses the beats are; below 0 earlier, for a clock that comes late."
      unit="ms"
      value={clock.offset ?? 0}
      {...bounds.ClockIn.offset}
      usual={0}
      commit={(offset) => set({ offset })}
    />
    <ChoiceRow
      label="if it is lost"
      name="What happens where the clock is lost"
      help="After three pulses that are missing and at least half a second, playing stops, or runs on at the last tempo until the clock is back."
      value={clock.runsOn ? "on" : "stop"}
      choices={[
        { value: "stop", label: "stops" },
        { value: "on", label: "runs on" },
      ]}
      select={(value) => set({ runsOn: value === "on" })}
    />
  {/if}
</Section>
