<!-- @component Another machine that is simulated: its clock, and the faults that it is to have. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import type { ClockSettings } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  const inputs = getSession().inputs;
  const clock = $derived(inputs.clock);
  let position = $state(0);
  let silence = $state(400);

  function set(change: Partial<ClockSettings>): Promise<void> {
    return inputs.act({ do: "set", settings: { ...clock, ...change } });
  }
</script>

<Section title="simulated clock" summary={clock.on ? "sends" : "off"}>
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={clock.on}
    data-help="Have the machine send its clock, started or not."
    onclick={() => set({ on: !clock.on })}>send clock</button
  >
  <div class="flex gap-1 py-0.5">
    <button
      class="control flex-1"
      aria-label="Start the simulated machine"
      data-help="The machine starts from its beginning."
      onclick={() => inputs.act({ do: "start" })}>start</button
    >
    <button
      class="control flex-1"
      aria-label="Continue the simulated machine"
      data-help="The machine goes on from where it stands, or from a position."
      onclick={() => inputs.act({ do: "continue" })}>continue</button
    >
    <button
      class="control flex-1"
      aria-label="Stop the simulated machine"
      data-help="The machine stops; its clock goes on."
      onclick={() => inputs.act({ do: "stop" })}>stop</button
    >
  </div>
  <NumberRow
    label="its tempo"
    name="Tempo of the simulated machine"
    help="The tempo of the machine. Another one is a jump."
    unit="bpm"
    value={clock.tempo / 1000}
    {...scaled(bounds.ClockSettings.tempo, 1000)}
    decimals={1}
    width="6ch"
    commit={(tempo) => set({ tempo: Math.round(tempo * 1000) })}
  />
  <NumberRow
    label="drift"
    name="Drift of the simulated machine"
    help="By how much its tempo becomes faster or slower in a minute."
    unit="bpm"
    value={clock.drift / 1000}
    {...scaled(bounds.ClockSettings.drift, 1000)}
    decimals={1}
    usual={0}
    width="6ch"
    commit={(drift) => set({ drift: Math.round(drift * 1000) })}
  />
  <NumberRow
    label="jitter"
    name="Jitter of the simulated machine"
    help="By how much a pulse can come late, at random."
    unit="ms"
    value={clock.jitter}
    {...bounds.ClockSettings.jitter}
    usual={0}
    commit={(jitter) => set({ jitter })}
  />
  <NumberRow
    label="position"
    name="Position of the simulated machine"
    help="How many sixteenths from the beginning the machine goes on; tell it, then continue."
    value={position}
    {...bounds.ClockAct.position}
    width="6ch"
    commit={async (value) => void (position = value)}
  />
  <button
    class="control my-0.5 w-full"
    data-help="The machine tells its position, from which it goes on when it continues."
    onclick={() => inputs.act({ do: "position", position })}>tell the position</button
  >
  <NumberRow
    label="silence"
    name="Silence of the simulated machine"
    help="How long nothing comes from the machine, though it goes on."
    unit="ms"
    value={silence}
    {...bounds.ClockAct.millis}
    width="6ch"
    commit={async (value) => void (silence = value)}
  />
  <button
    class="control my-0.5 w-full"
    data-help="Nothing comes from the machine for that time."
    onclick={() => inputs.act({ do: "dropOut", millis: silence })}>be silent</button
  >
</Section>
