<!-- @component How a track's time differs from the project's. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TicksRow from "../fields/TicksRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const quarter = $derived(session.lists.ticksPerQuarter);
  const shifts = $derived(track.shifts ?? []);
</script>

<FieldRow label="speed" help="The ratio at which the track's time passes, as 3:2.">
  <NumberField
    label="Speed, this many"
    value={track.speed.n}
    {...bounds.Ratio.n}
    usual={1}
    width="2ch"
    commit={(n) => session.setTrack((now) => ({ speed: { ...now.speed, n } }))}
  />
  <span class="caption">:</span>
  <NumberField
    label="Speed, in the time of so many"
    value={track.speed.m}
    {...bounds.Ratio.m}
    usual={1}
    width="2ch"
    commit={(m) => session.setTrack((now) => ({ speed: { ...now.speed, m } }))}
  />
</FieldRow>
<FieldRow
  label="swing"
  help="Swing: the share of a pair of grid steps that the first one takes, the project's or an amount of its own; the swing lane scales it by step."
>
  {#if track.swing > 0}
    <NumberField
      label="Track swing in percent"
      value={track.swing / 10}
      {...scaled(bounds.Project.swing, 10)}
      step={0.1}
      decimals={1}
      usual={50}
      width="5ch"
      commit={(percent) => session.setTrack({ swing: Math.round(percent * 10) })}
    />
    <span class="caption">%</span>
  {/if}
  {#if track.swing === 0}
    <span class="caption">{(session.project.swing / 10).toFixed(1)} %</span>
  {/if}
  <button
    class="control"
    aria-pressed={track.swing > 0}
    data-help="Have an amount of its own, or follow the project's."
    onclick={() => session.setTrack({ swing: track.swing > 0 ? 0 : session.project.swing })}
    >own amount</button
  >
</FieldRow>
<ChoiceRow
  label="swings"
  name="What swings"
  help="What a pair is: two steps of the project's swing grid from the bar line, which all tracks share, or two of this track's own steps."
  value={track.swingOwnSteps ? "own" : "grid"}
  choices={[
    { value: "grid", label: `on the grid, ${session.project.swingGrid}` },
    { value: "own", label: "by its own steps" },
  ]}
  select={(by) => session.setTrack({ swingOwnSteps: by === "own" })}
/>
<TicksRow
  label="delay"
  name="Track delay"
  help="Shifts the whole track; early below 0."
  value={track.delay}
  signed
  commit={(delay) => session.setTrack({ delay })}
/>
<NumberRow
  label="jitter"
  name="Track jitter"
  help="The most by which chance shifts a note either way."
  unit="ms"
  value={track.jitter}
  {...bounds.Track.jitter}
  usual={0}
  commit={(jitter) => session.setTrack({ jitter })}
/>
<FieldRow
  label="random time shifts"
  help="Divisions by which chance shifts a note, early or late; press one to take it out."
>
  {#each shifts as shift (shift)}
    <button
      class="control px-1!"
      onclick={() => session.setTrack({ shifts: shifts.filter((s) => s !== shift) })}
      >{shift} ×</button
    >
  {/each}
</FieldRow>
{#if shifts.length < 8}
  <ChoiceRow
    label=""
    name="Add a shift"
    help="Chance shifts notes by this division too."
    acts
    value=""
    choices={[
      { value: "", label: "+ shift" },
      ...session.lists.rates
        .filter(({ name, ticks }) => ticks <= quarter && !shifts.includes(name))
        .map(({ name }) => ({ value: name, label: name })),
    ]}
    select={(shift) => shift && session.setTrack({ shifts: [...shifts, shift] })}
  />
{/if}
