<!-- @component A test voltage on a channel, and what was read of it: by a meter, or by an oscillator that is heard. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Output, VoltageChannel, VoltageReading } from "../../api/types";
  import { scaled } from "../../chart/numbers";
  import { counted } from "../../counted";
  import { getOutputs, getSession } from "../../state/context";
  import { hearOscillator } from "../../state/oscillator";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    output: Output;
    channel: VoltageChannel;
  }
  let { output, channel }: Props = $props();

  const session = getSession();
  const { voltages } = getOutputs();
  const { channel: number } = $derived(channel);
  const bound = $derived(voltages.interfaces.boundTo(output.name));
  const readings = $derived(voltages.readingsOf(output, number));
  let volts = $state(1);
  let holds = $state(false);
  let measuring = $state(false);
  /** What the meter reads. */
  let seen = $state(1);

  $effect(() => {
    if (session.transport.playing) holds = false; // what plays takes the channel over
  });

  /** In volts, with the tenths of a millivolt in which readings are counted. */
  const unit = 10_000;

  function hold(on: boolean): Promise<void> {
    holds = on;
    return voltages.test(output, number, on ? volts : undefined);
  }

  function keep(reading: VoltageReading): Promise<void> {
    const others = readings.filter(({ asked, hertz }) => asked !== reading.asked && !hertz);
    return voltages.calibrate(output, number, [...others, reading]);
  }

  /** The first reading waits for the second, since a calibration is of two. */
  let first = $state<VoltageReading>();

  async function add(): Promise<void> {
    const reading = { asked: Math.round(volts * unit), read: Math.round(seen * unit) };
    if (readings.length > 0) return keep(reading);
    if (!first || first.asked === reading.asked) {
      first = reading;
      return;
    }
    await voltages.calibrate(output, number, [first, reading]);
  }

  $effect(() => {
    if (readings.length > 0) first = undefined;
  });

  /** Hears an oscillator at each whole volt of the channel's range. */
  async function measure(): Promise<void> {
    const from = Math.ceil(channel.lowest / 1000);
    const to = Math.floor(channel.highest / 1000);
    const asked = Array.from({ length: to - from + 1 }, (_, i) => from + i);
    measuring = true;
    try {
      const heard = await hearOscillator(asked, (v) => voltages.test(output, number, v));
      const all = heard.map(({ volts, hertz }) => ({
        asked: volts * unit,
        hertz: Math.round(hertz * 1000),
      }));
      await voltages.calibrate(output, number, all);
    } catch (error) {
      session.notices.add(error instanceof Error ? error.message : String(error));
    } finally {
      measuring = false;
      await hold(false);
    }
  }
</script>

<NumberRow
  label="test voltage"
  name="test voltage of channel {number}"
  help="A voltage to be sent on this channel, uncorrected, to be measured or heard."
  unit="V"
  value={volts}
  {...scaled(bounds.VoltageChannel.lowest, 1000)}
  decimals={3}
  usual={1}
  width="7ch"
  commit={async (to) => {
    volts = to;
    if (holds) await hold(true);
  }}
/>
<button
  class="control my-0.5 w-full justify-start!"
  aria-pressed={holds}
  data-help="Send the test voltage until this is pressed again, or something plays."
  onclick={() => hold(!holds)}>send the test voltage</button
>
{#if bound}
  <h3 class="pt-1 font-semibold">
    Calibration <span class="caption font-normal"
      >{readings.length > 0 ? counted(readings.length, "reading") : "none"}</span
    >
  </h3>
  <NumberRow
    label="the meter reads"
    name="the meter reads for channel {number}"
    help="What a meter reads for the test voltage. Two readings correct the channel; one at each octave corrects it best. They stay with this machine."
    unit="V"
    value={seen}
    {...scaled(bounds.VoltageReading.read, unit)}
    decimals={4}
    width="8ch"
    commit={async (to) => {
      seen = to;
    }}
  />
  <button
    class="control my-0.5 w-full justify-start!"
    data-help="Keep what the meter reads for the test voltage, in the place of what it read for the same before."
    onclick={add}>add the reading</button
  >
  {#if first}
    <p class="text-ink-2 py-1">
      {first.asked / unit} V read as {(first.read ?? 0) / unit} V. Send another voltage, and read it too.
    </p>
  {/if}
  <ul class="py-1" aria-label="Readings of channel {number}">
    {#each readings as { asked, read: is, hertz } (asked)}
      <li class="font-mono">
        {(asked / unit).toFixed(3)} V: {hertz
          ? `${(hertz / 1000).toFixed(2)} Hz`
          : `${((is ?? 0) / unit).toFixed(4)} V`}
      </li>
    {/each}
  </ul>
  <button
    class="control my-0.5 w-full justify-start!"
    disabled={measuring || session.transport.playing}
    data-help="Patch the oscillator that the channel drives into an audio input of this machine: it is heard at each volt, and corrected so that a volt is an octave."
    onclick={measure}>{measuring ? "listening…" : "measure an oscillator"}</button
  >
  <button
    class="control my-0.5 w-full justify-start!"
    disabled={readings.length === 0}
    data-help="Forget what was read of this channel: its voltages are sent as they are."
    onclick={() => voltages.calibrate(output, number, [])}>forget the readings</button
  >
{/if}
