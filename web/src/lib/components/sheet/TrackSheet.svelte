<!-- @component The track: where it goes, its patterns, its time, its pitch, its luck and its clock. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { counted } from "../../counted";
  import { getChartView, getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";
  import OnceButtons from "../stage/OnceButtons.svelte";
  import Section from "../fields/Section.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import FreezeFields from "./FreezeFields.svelte";
  import PatternFields from "./PatternFields.svelte";
  import PitchFields from "./PitchFields.svelte";
  import PitchSourceFields from "./PitchSourceFields.svelte";
  import RandomLines from "./RandomLines.svelte";
  import SourceFields from "./SourceFields.svelte";
  import TimeFields from "./TimeFields.svelte";
  import TrackRoutes from "./TrackRoutes.svelte";

  const session = getSession();
  const view = getChartView();
  const track = $derived(session.track);
  const repeats = $derived(view.chart?.repeats);
  const ownLuck = $derived(track.luck >= 0);
</script>

<TextRow
  label="name"
  name="Track name"
  help="The track's name."
  value={track.name}
  commit={(name) => session.setTrack({ name })}
/>
<TrackRoutes />
<NumberRow
  label="channel"
  name="MIDI channel"
  help="The track's MIDI channel, 1 to 16: at outputs that say no other, in takes and in files."
  value={track.channel}
  {...bounds.Track.channel}
  commit={(channel) => session.setTrack({ channel })}
/>
<NumberRow
  label="program"
  name="Program"
  help="The program that is sent when playing begins; {session.programs.none} sends none."
  unit="{session.programs.none}: none"
  show={session.programs.show}
  read={session.programs.read}
  value={track.program ?? 0}
  {...bounds.Track.program}
  usual={0}
  commit={(program) => session.setTrack({ program })}
/>
{#if track.program}
  <NumberRow
    label="bank"
    name="Bank"
    help="The bank that is sent before the program; {session.programs.none} sends none."
    unit="{session.programs.none}: none"
    show={session.programs.show}
    read={session.programs.read}
    value={track.bank ?? 0}
    {...bounds.Track.bank}
    usual={0}
    width="6ch"
    commit={(bank) => session.setTrack({ bank })}
  />
{/if}
<NumberRow
  label="probability"
  name="Track probability"
  help="Probability of the track: below 0 all steps sound more seldom, at −100 none; above 0 more often, at +100 each that can."
  unit="%"
  value={track.probability ?? 0}
  {...bounds.Track.probability}
  usual={0}
  commit={(probability) => session.setTrack({ probability })}
/>
<Section title="loop" summary={track.loop ? "plays" : "none"}>
  <FreezeFields {track} />
</Section>
<Section title="patterns" summary={session.pattern.name}>
  <PatternFields {track} />
</Section>
<Section title="luck" summary={ownLuck ? "its own" : "the project's"}>
  <button
    class="control my-1 w-full"
    aria-pressed={ownLuck}
    data-help="A luck of its own leaves the track alone when the project's luck changes."
    onclick={() => session.setTrack({ luck: ownLuck ? -1 : session.project.luck.number })}
    >own luck</button
  >
  {#if ownLuck}
    <NumberRow
      label="luck"
      name="Track luck"
      help="The number from which the track's random decisions follow."
      value={track.luck}
      {...bounds.Luck.number}
      width="7ch"
      commit={(luck) => session.setTrack({ luck })}
    />
  {/if}
  <NumberRow
    label="hold"
    name="Track hold"
    help="Hold: the same luck again every so many bars, so that a good accident stays; 0 never."
    unit="bars"
    value={track.hold}
    {...bounds.Track.hold}
    usual={0}
    commit={(hold) => session.setTrack({ hold })}
  />
  {#if track.hold}
    <NumberRow
      label="hold from"
      name="Track hold from bar"
      help="Hold from: the first of the bars that are held; nothing changes before it."
      unit="bar"
      value={(track.holdFrom ?? 0) + 1}
      min={bounds.Track.holdFrom.min + 1}
      max={bounds.Track.holdFrom.max + 1}
      usual={1}
      width="8ch"
      commit={(bar) => session.setTrack({ holdFrom: bar - 1 })}
    />
  {/if}
  <NumberRow
    label="realign"
    name="Track realign"
    help="Realign: all lanes back to their first step every so many bars; 0 never."
    unit="bars"
    value={track.realign}
    {...bounds.Track.realign}
    usual={0}
    commit={(realign) => session.setTrack({ realign })}
  />
  <OnceButtons {track} />
  {#if track.hold && repeats}
    <p class="text-ink-2 pb-1" role="note" aria-label="What the hold repeats">
      {#if repeats.never}
        What is held does not repeat exactly for sure: {repeats.never}.
      {:else}
        What is held repeats exactly after {counted(repeats.ticks / session.bars.length, "bar")}.
      {/if}
    </p>
  {/if}
</Section>
<Section title="time"><TimeFields {track} /></Section>
<Section
  title={track.kind === "kit" ? "keys" : "pitches"}
  summary={track.pitches?.onlyHeld ? "only while held" : (track.pitches?.kind ?? "")}
  ><PitchSourceFields {track} /></Section
>
<Section title="random lines" summary="small tracks over this one"><RandomLines {track} /></Section>
<Section title="pitch and voices"><PitchFields {track} /></Section>
<Section title="clock" summary={track.source.kind}><SourceFields {track} /></Section>
