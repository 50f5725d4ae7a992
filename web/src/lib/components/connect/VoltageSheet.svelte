<!-- @component An output of voltages: its full scale, and what each channel of the interface carries. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Output, VoltageChannel, VoltageSetup } from "../../api/types";
  import { scaled } from "../../chart/numbers";
  import { channelWords, decimalsOf } from "../../output/voltageFields";
  import { counted } from "../../counted";
  import { getOutputs, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import CalibrationFields from "./CalibrationFields.svelte";
  import VoltageFields from "./VoltageFields.svelte";

  let { output }: { output: Output } = $props();

  const session = getSession();
  const outputs = getOutputs();
  const setup = $derived(output.voltages ?? { fullScale: 10_000, channels: [] });
  let opened = $state<number>();
  const { interfaces } = outputs.voltages;
  const bound = $derived(interfaces.boundTo(output.name) ?? "");
  const stands = $derived(outputs.voltages.stateOf(output));

  /** Writes the voltages of the output as they are by then, changed. */
  function set(change: (now: VoltageSetup) => Partial<VoltageSetup>): Promise<void> {
    const { id } = output;
    return session.edit(() => {
      const list = outputs.list.map((other) => {
        if (other.id !== id || !other.voltages) return other;
        return { ...other, voltages: { ...other.voltages, ...change(other.voltages) } };
      });
      return { setProject: { outputs: list } };
    });
  }

  function setChannel(number: number, change: Partial<VoltageChannel>): Promise<void> {
    return set(({ channels }) => ({
      channels: channels.map((c) => (c.channel === number ? { ...c, ...change } : c)),
    }));
  }

  /** Adds a channel behind the last one; the first two are left to loudspeakers. */
  async function add(): Promise<void> {
    const used = setup.channels.map(({ channel }) => channel);
    const from = Array.from({ length: 32 }, (_, i) => i + 1);
    const free =
      from.find((n) => n > Math.max(2, ...used)) ?? from.find((n) => n > 2 && !used.includes(n));
    const usual = session.lists.voltageChannels[0];
    if (free === undefined || !usual) {
      session.notices.add("All channels from 3 on are used; take one out first.");
      return;
    }
    const track = session.project.tracks[0]?.id ?? 0;
    await set(({ channels }) => ({ channels: [...channels, { ...usual, channel: free, track }] }));
    opened = free;
  }

  function words(channel: VoltageChannel): string {
    return channelWords(channel, session.project.tracks);
  }
</script>

<ChoiceRow
  label="interface"
  name="Interface of the output"
  help="The DC-coupled audio interface of this machine that carries the voltages. It stays with this browser, not with the project."
  value={bound}
  choices={[
    { value: "", label: "none" },
    ...interfaces.list.map(({ name }) => ({ value: name, label: name })),
    ...(bound && !interfaces.find(bound) ? [{ value: bound, label: `${bound} (missing)` }] : []),
  ]}
  select={async (name) => outputs.voltages.select(output, name)}
/>
<p class="text-ink-2 py-1" data-ready={stands.ready}>{stands.words}</p>
<button
  class="control my-0.5 w-full justify-start!"
  data-help="Look which audio interfaces this machine has. Browsers ask whether the page may use the microphone before they tell their names; nothing is heard by it."
  onclick={() => outputs.voltages.find()}>find audio interfaces</button
>
<button
  class="control my-0.5 w-full justify-start!"
  aria-pressed={output.standIn ?? false}
  data-help="While no interface carries the voltages, a rack in this page hears them: an oscillator for each pitch, a drum for each trigger."
  onclick={async () => {
    outputs.voltages.wake();
    await outputs.change(output, { standIn: !output.standIn });
  }}>rack while missing</button
>
<p class="text-ink-2 py-1">
  Under Takes, <em>files</em> has the voltages of a take as a .wav.
</p>
<NumberRow
  label="full scale"
  help="The voltage that the interface gives at full scale, as its manual says."
  unit="V"
  value={setup.fullScale / 1000}
  {...scaled(bounds.VoltageSetup.fullScale, 1000)}
  decimals={3}
  usual={10}
  width="6ch"
  commit={(volts) => set(() => ({ fullScale: Math.round(volts * 1000) }))}
/>
<NumberRow
  label="silence"
  help="After how long of hearing nothing from the program gates are off; they are on again once it is heard. At 0 they stay until stop."
  unit="s"
  value={(setup.silence ?? 0) / 10}
  {...scaled(bounds.VoltageSetup.silence, 10)}
  decimals={1}
  usual={2}
  width="6ch"
  commit={(seconds) => set(() => ({ silence: Math.round(seconds * 10) }))}
/>
<ChoiceRow
  label="voices"
  name="How notes go to voices"
  help="Where the notes of a track with several voices go: in turn, or always to the first voice that is free."
  value={setup.lowestFree ? "lowest" : "round"}
  choices={[
    { value: "round", label: "in turn" },
    { value: "lowest", label: "the first that is free" },
  ]}
  select={(how) => set(() => ({ lowestFree: how === "lowest" }))}
/>
<h2 class="pt-2 font-semibold">
  Channels <span class="caption font-normal">{counted(setup.channels.length, "channel")}</span>
</h2>
<ul class="py-1" aria-label="Channels of {output.name}">
  {#each setup.channels as channel (channel.channel)}
    {@const open = opened === channel.channel}
    <li class="border-line border-b py-0.5">
      <div class="flex items-center gap-1">
        <button
          class="control min-w-0 flex-1 justify-start! overflow-hidden"
          aria-expanded={open}
          aria-label="Channel {channel.channel} {channel.signal} {words(channel)}"
          data-help="What channel {channel.channel} of the interface carries: press to change it."
          onclick={() => (opened = open ? undefined : channel.channel)}
          ><span class="w-5 shrink-0 text-right font-mono">{channel.channel}</span>
          <span class="shrink-0">{channel.signal}</span>
          <span class="caption truncate leading-normal">{words(channel)}</span>
          {#if outputs.voltages.level(output.id, channel.channel) !== undefined}
            <span class="ml-auto shrink-0 font-mono" data-volts
              >{outputs.voltages
                .level(output.id, channel.channel)
                ?.toFixed(decimalsOf(channel.signal))} V</span
            >
          {/if}</button
        >
        <button
          class="control"
          aria-label="Take channel {channel.channel} out"
          data-help="Have channel {channel.channel} carry nothing."
          onclick={() =>
            set(({ channels }) => ({
              channels: channels.filter((c) => c.channel !== channel.channel),
            }))}>✕</button
        >
      </div>
      {#if outputs.voltages.beyond(output.id, channel.channel)}
        <p class="text-signal py-1" role="note">
          {outputs.voltages.beyond(output.id, channel.channel)}.
        </p>
      {/if}
      {#if open}
        <VoltageFields
          {channel}
          taken={setup.channels.map((c) => c.channel)}
          set={async (change) => {
            await setChannel(channel.channel, change);
            if (change.channel) opened = change.channel;
          }}
        />
        <CalibrationFields {output} {channel} />
      {/if}
    </li>
  {/each}
</ul>
<button class="control w-full" disabled={setup.channels.length >= 32} onclick={add}
  >+ channel</button
>
