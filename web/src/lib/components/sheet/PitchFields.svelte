<!-- @component How high and low a track goes, how many notes sound at a time, and how they get in tune. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Track, Tuned } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TicksRow from "../fields/TicksRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const register = $derived(track.register);
  const transpose = $derived(track.transpose);
  const kit = $derived(track.kind === "kit");
  const tuned: Tuned = $derived(track.tuned ?? { by: "instrument" });
  const octave = 12;

  function setTuned(by: Tuned["by"]): Promise<void> {
    return session.setTrack({ tuned: by === "bend" ? { by, channels: 4, range: 2 } : { by } });
  }
</script>

{#if !kit}
  <NumberRow
    label="lowest note"
    note
    help="Lowest note of the register, by name or MIDI number. Notes outside are folded in by whole octaves."
    value={register.lowest}
    min={bounds.Register.lowest.min}
    max={register.highest - octave + 1}
    commit={(lowest) => session.setTrack((now) => ({ register: { ...now.register, lowest } }))}
  />
  <NumberRow
    label="highest note"
    note
    help="Highest note of the register, by name or MIDI number. Notes outside are folded in by whole octaves."
    value={register.highest}
    min={register.lowest + octave - 1}
    max={bounds.Register.highest.max}
    commit={(highest) => session.setTrack((now) => ({ register: { ...now.register, highest } }))}
  />
  <NumberRow
    label="degrees up"
    help="Transposes within the scale."
    value={transpose.degrees}
    {...bounds.Transpose.degrees}
    usual={0}
    commit={(degrees) => session.setTrack((now) => ({ transpose: { ...now.transpose, degrees } }))}
  />
  <NumberRow
    label="semitones up"
    help="Transposes by semitones, which can lead out of the scale."
    value={transpose.semitones}
    {...bounds.Transpose.semitones}
    usual={0}
    commit={(semitones) =>
      session.setTrack((now) => ({ transpose: { ...now.transpose, semitones } }))}
  />
{/if}
<NumberRow
  label="voices"
  help="How many notes can sound at a time: a new one ends the oldest. 0 is as many as come."
  value={track.voices}
  {...bounds.Track.voices}
  usual={0}
  commit={(voices) => session.setTrack({ voices })}
/>
<TicksRow
  label="overlap"
  help="How long a note that a new one ends sounds on into it, for legato."
  value={track.overlap}
  commit={(overlap) => session.setTrack({ overlap })}
/>
{#if !kit}
  <ChoiceRow
    label="tuning method"
    help="How notes get in tune: the instrument has the tuning, each note is bent on a channel of its own, or keys are retuned by messages."
    value={tuned.by}
    choices={session.lists.tunedBys}
    select={(by) => setTuned(by as Tuned["by"])}
  />
  {#if tuned.by === "bend"}
    <NumberRow
      label="channels"
      name="Channels for bends"
      help="How many channels from the track's own up: as many notes can be in tune at a time."
      value={tuned.channels ?? 1}
      {...bounds.Tuned.channels}
      min={1}
      commit={(channels) =>
        session.setTrack((now) => ({ tuned: { ...(now.tuned ?? tuned), channels } }))}
    />
    <NumberRow
      label="bend range"
      help="How far the instrument bends, in semitones either way."
      value={tuned.range ?? 2}
      {...bounds.Tuned.range}
      min={1}
      usual={2}
      commit={(range) => session.setTrack((now) => ({ tuned: { ...(now.tuned ?? tuned), range } }))}
    />
  {/if}
{/if}
