<!-- @component What a channel of voltages carries. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { VoltageChannel } from "../../api/types";
  import { scaled } from "../../chart/numbers";
  import { fieldsOf, isOfTrack, isOfVoice, type Signal } from "../../output/voltageFields";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    channel: VoltageChannel;
    /** The channels of the interface that carry something. */
    taken: number[];
    set: (change: Partial<VoltageChannel>) => Promise<void>;
  }
  let { channel, taken, set }: Props = $props();

  const session = getSession();
  const { signal } = $derived(channel);
  const fields = $derived(fieldsOf(signal));
  const tracks = $derived(
    session.project.tracks.filter(({ kind }) => signal !== "trigger" || kind === "kit"),
  );
  const track = $derived(session.project.tracks.find(({ id }) => id === channel.track));
  const parts = $derived(track?.patterns.find(({ id }) => id === track.playing)?.parts ?? []);
  const free = $derived(
    Array.from({ length: bounds.VoltageChannel.channel.max }, (_, i) => i + 1).filter(
      (n) => n === channel.channel || !taken.includes(n),
    ),
  );

  /** Has the channel carry another signal, as is usual for it, of the same track where that can be. */
  function turnTo(to: Signal): Promise<void> {
    const usual = session.lists.voltageChannels.find((c) => c.signal === to);
    const kit = session.project.tracks.find(({ kind }) => kind === "kit");
    const of = to === "trigger" && track?.kind !== "kit" ? kit?.id : channel.track;
    const blank = { lead: 0, slew: 0, rest: 0, inverted: false };
    return set({
      ...blank,
      ...usual,
      channel: channel.channel,
      track: isOfTrack(to) ? (of ?? 0) : 0,
    });
  }
</script>

<ChoiceRow
  label="signal"
  name="Signal of channel {channel.channel}"
  help="What the channel says: the pitch, gate or velocity of a voice, the trigger of a part of a kit, a mod lane, or the clock."
  value={signal}
  choices={session.lists.voltageChannels.map((c) => c.signal)}
  select={(to) => turnTo(to as Signal)}
/>
<ChoiceRow
  label="channel"
  name="Number of channel {channel.channel}"
  help="Which channel of the interface; 1 and 2 are loudspeakers as a rule."
  value={String(channel.channel)}
  choices={free.map(String)}
  select={(to) => set({ channel: Number(to) })}
/>
{#if isOfTrack(signal)}
  <ChoiceRow
    label={signal === "reset" ? "also with" : "track"}
    name="Track of channel {channel.channel}"
    help={signal === "reset"
      ? "Reset also before each bar in which this track is realigned."
      : "Whose notes. The track needs a route to this output."}
    value={String(channel.track ?? 0)}
    choices={[
      { value: "0", label: "none" },
      ...tracks.map(({ id, name }) => ({ value: String(id), label: name })),
    ]}
    select={(id) => set({ track: Number(id) })}
  />
{/if}
{#if isOfVoice(signal)}
  <NumberRow
    label="voice"
    name="Voice of channel {channel.channel}"
    help="Which voice of the track. A track has as many voices here as channels ask for."
    value={channel.voice ?? 1}
    min={1}
    max={bounds.VoltageChannel.voice.max}
    commit={(voice) => set({ voice })}
  />
{/if}
{#if signal === "trigger"}
  <ChoiceRow
    label="part"
    name="Part of channel {channel.channel}"
    help="The part of the kit that triggers."
    value={String(channel.part ?? 0)}
    choices={parts.map(({ id, name }) => ({ value: String(id), label: name }))}
    select={(id) => set({ part: Number(id) })}
  />
{/if}
{#each fields.numbers as { key, label, help, unit, scale, note } (key)}
  <NumberRow
    {label}
    name="{label} of channel {channel.channel}"
    {help}
    {...unit === undefined ? {} : { unit }}
    {...note ? { note } : {}}
    value={(channel[key] ?? 0) / scale}
    {...scaled(bounds.VoltageChannel[key], scale)}
    decimals={scale > 1 ? Math.log10(scale) : 0}
    width="6ch"
    commit={(value) => set({ [key]: Math.round(value * scale) })}
  />
{/each}
{#each fields.toggles as { key, label, help } (key)}
  <FieldRow {label} {help}>
    <input
      type="checkbox"
      class="accent-ink"
      aria-label="{label}, channel {channel.channel}"
      checked={channel[key] ?? false}
      onchange={(event) => set({ [key]: event.currentTarget.checked })}
    />
  </FieldRow>
{/each}
