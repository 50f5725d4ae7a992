<!-- @component What makes a track go on: its own rate, another track's notes, or what comes in. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Source, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const source = $derived(track.source);
  const others = $derived(session.project.tracks.filter((t) => t.id !== track.id));
  const follows = $derived(["starts", "ends", "rules"].includes(source.kind));
  const choices = $derived(
    session.lists.sources.filter(
      ({ value }) => others.length > 0 || !["starts", "ends", "rules"].includes(value),
    ),
  );
  const modulators = $derived(session.project.modulators ?? []);
  const quarter = $derived(session.lists.ticksPerQuarter);

  function set(change: Partial<Source>): Promise<void> {
    return session.setTrack((now) => ({ source: { ...now.source, ...change } }));
  }

  function setKind(kind: Source["kind"]): Promise<void> {
    const follow = ["starts", "ends", "rules"].includes(kind);
    return set({
      kind,
      track: follow ? source.track || (others[0]?.id ?? 0) : 0,
      lowest: source.lowest ?? 0,
      highest: source.highest ?? 127,
      level: source.level || 64,
      modulator: source.modulator || (modulators[0]?.id ?? 0),
    });
  }
</script>

<ChoiceRow
  label="clock source"
  help="What makes the track go on to its next step."
  value={source.kind}
  {choices}
  select={(kind) => setKind(kind as Source["kind"])}
/>
{#if follows}
  <ChoiceRow
    label="track"
    name="Track that is followed"
    help="The track whose notes are the clock."
    value={String(source.track)}
    choices={others.map((t) => ({ value: String(t.id), label: t.name }))}
    select={(id) => set({ track: Number(id) })}
  />
{:else if source.kind === "modulator"}
  <ChoiceRow
    label="modulator"
    name="Modulator that is the clock"
    help="The modulator whose curve is the clock. They are made on Perform, under moves."
    value={String(source.modulator ?? 0)}
    choices={[
      ...(modulators.some(({ id }) => id === source.modulator)
        ? []
        : [{ value: String(source.modulator ?? 0), label: "none" }]),
      ...modulators.map(({ id, name }) => ({ value: String(id), label: name })),
    ]}
    select={(id) => set({ modulator: Number(id) })}
  />
  <NumberRow
    label="rises to"
    name="Level that the curve rises to"
    help="The level that the curve must rise to, from its lowest at −100 to its highest at 100."
    unit="%"
    value={source.crossing ?? 0}
    {...bounds.Source.crossing}
    usual={0}
    commit={(crossing) => set({ crossing })}
  />
{:else if source.kind !== "own"}
  <NumberRow
    label="from channel"
    help="Channel of the MIDI input; 0 is all."
    value={source.channel ?? 0}
    {...bounds.Source.channel}
    usual={0}
    commit={(channel) => set({ channel })}
  />
  {#if source.kind === "input notes"}
    <NumberRow
      label="lowest"
      name="Lowest note that counts"
      note
      help="Lowest note that counts, by name or MIDI number."
      value={source.lowest ?? 0}
      min={bounds.Source.lowest.min}
      max={source.highest ?? bounds.Source.highest.max}
      usual={0}
      commit={(lowest) => set({ lowest })}
    />
    <NumberRow
      label="highest"
      name="Highest note that counts"
      note
      help="Highest note that counts, by name or MIDI number."
      value={source.highest ?? 127}
      min={source.lowest ?? 0}
      max={bounds.Source.highest.max}
      usual={127}
      commit={(highest) => set({ highest })}
    />
  {:else}
    <NumberRow
      label="controller"
      name="Controller of the MIDI input"
      help="Number of the controller."
      value={source.controller ?? 0}
      {...bounds.Source.controller}
      commit={(controller) => set({ controller })}
    />
    <NumberRow
      label="level"
      name="Level to reach"
      help="The value that it must reach from below."
      value={source.level ?? 64}
      {...bounds.Source.level}
      min={1}
      usual={64}
      commit={(level) => set({ level })}
    />
  {/if}
{/if}
{#if source.kind !== "own"}
  <NumberRow
    label="odds"
    name="Odds of going on"
    help="How often it makes the track go on."
    unit="%"
    value={source.odds}
    {...bounds.Source.odds}
    usual={100}
    commit={(odds) => set({ odds })}
  />
  <NumberRow
    label="delay"
    name="Delay of going on"
    help="How long after it the track takes its step, in 16ths of a beat."
    unit="/16 beat"
    value={Math.round((source.delay * 16) / quarter)}
    min={0}
    max={(bounds.Source.delay.max * 16) / quarter}
    usual={0}
    commit={(delay) => set({ delay: (delay * quarter) / 16 })}
  />
{/if}
