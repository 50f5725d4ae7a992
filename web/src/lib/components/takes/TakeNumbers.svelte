<!-- @component What a take counts, and what it has in common with another. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getSession, getTakeDesk } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import Section from "../fields/Section.svelte";
  import Columns from "./Columns.svelte";

  let { summary }: { summary: Summary } = $props();

  const session = getSession();
  const desk = getTakeDesk();

  const s = $derived(desk.statistics);
  const most = $derived(Math.max(0, ...(s?.bars.map((bar) => bar.notes) ?? [])));
  const others = $derived([
    { value: "", label: "none" },
    ...session.shelf.takes
      .filter((take) => take.id !== summary.id && !take.deleted)
      .map((take) => ({ value: String(take.id), label: take.name })),
  ]);
  const whose = $derived(
    desk.roll?.tracks.find((track) => track.id === desk.track)?.name ?? "all tracks",
  );

  function interval(value: number): string {
    return value > 0 ? `+${value}` : String(value).replace("-", "−");
  }
</script>

<ChoiceRow
  label="Compare with"
  help="Notes that the other take has and this one lacks are dashed; those that it lacks are framed, those that it has otherwise are dotted."
  value={String(desk.comparedWith ?? "")}
  choices={others}
  select={(value) => desk.compareWith(value ? Number(value) : undefined)}
/>
{#if desk.comparison}
  <p class="pb-1" data-comparison>
    <b>{desk.comparison.same}</b> the same, <b>{desk.comparison.changed.length}</b> with another
    length or velocity, <b>{desk.comparison.gone.length}</b> only here,
    <b>{desk.comparison.added.length}</b> only there.
  </p>
{/if}
{#if s}
  <Section title="Notes">
    <p class="caption pb-1">of {whose}</p>
    <p>
      <b>{s.notes}</b> notes, {(s.notes / Math.max(1, s.length)).toFixed(1)} a bar, {most} at most
    </p>
    <p>velocity {s.velocity.toFixed(1)} ± {s.deviation.toFixed(1)}</p>
  </Section>
  <Section title="Notes by bar">
    <Columns
      values={s.bars.map((bar) => ({ name: `bar ${bar.bar}`, value: bar.notes }))}
      label="Notes of each bar"
    />
  </Section>
  <Section title="Velocity by bar">
    <Columns
      values={s.bars.map((bar) => ({ name: `bar ${bar.bar}`, value: bar.velocity }))}
      label="Mean velocity of each bar"
    />
  </Section>
  <Section title="Pitches">
    <Columns
      values={s.keys.map((key) => ({ name: session.notes.name(key.value), value: key.count }))}
      label="How often each pitch comes"
    />
  </Section>
  <Section title="Intervals">
    <Columns
      values={s.intervals.map((i) => ({ name: interval(i.value), value: i.count }))}
      label="How often each interval comes, in semitones from note to note"
    />
  </Section>
{/if}
