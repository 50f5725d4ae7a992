<!-- @component Corrections of notes: those that are selected, else all of the selected track and stretch. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession, getTakeDesk } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  const session = getSession();
  const desk = getTakeDesk();

  let strength = $state(100);
  let swing = $state(50);
  let direction = $state<"nearest" | "up" | "down">("nearest");
  let thinTo = $state("1/16");

  const rates = $derived(session.lists.rates.map((rate) => rate.name));
  const tracks = $derived(desk.track === undefined ? {} : { tracks: [desk.track] });
</script>

<p class="caption pb-1" role="note">acts on <b class="text-ink">{desk.scope}</b></p>
<ChoiceRow
  label="Grid"
  help="The grid for moving and drawing notes, and for quantising them."
  value={desk.grid}
  choices={rates}
  select={(value) => (desk.grid = value)}
/>
<Section title="Quantise">
  <NumberRow
    label="Strength"
    help="How far notes go towards the lines, in percent of the way."
    unit="%"
    value={strength}
    {...bounds.Quantise.strength}
    usual={100}
    commit={async (value) => {
      strength = value;
    }}
  />
  <NumberRow
    label="Swing"
    help="The share of a pair of lines that the first takes: 50 is straight, 67 a triplet feel."
    unit="%"
    value={swing}
    {...scaled(bounds.Quantise.swing, 10)}
    step={0.1}
    decimals={1}
    usual={50}
    commit={async (value) => {
      swing = value;
    }}
  />
  <button
    class="control"
    data-help="Move the starts of notes towards the lines of the grid; they keep their lengths."
    onclick={() =>
      desk.edit({
        quantise: { ...desk.choice, grid: desk.grid, strength, swing: Math.round(swing * 10) },
      })}>quantise</button
  >
</Section>
<Section title="Pitch">
  <div class="flex flex-wrap gap-1 py-1">
    {#each [["octave down", -12], ["semitone down", -1], ["semitone up", 1], ["octave up", 12]] as const as [words, by] (by)}
      <button
        class="control"
        data-help="Transpose: all together, as far as the keyboard goes. Kits keep their notes unless they are selected."
        onclick={() => desk.edit({ moveNotes: { ...desk.choice, ticks: 0, semitones: by } })}
        >{words}</button
      >
    {/each}
  </div>
  <ChoiceRow
    label="Notes outside the scale go"
    help="Where notes go that are not in the project's key: to the nearest, of two equally near the lower; up; or down."
    value={direction}
    choices={["nearest", "up", "down"]}
    select={(value) => (direction = value as typeof direction)}
  />
  <button
    class="control"
    data-help="Bring notes outside the scale of the project's key into it. Kits keep their notes unless they are selected."
    onclick={() => desk.edit({ fit: { ...desk.choice, key: session.project.key, direction } })}
    >into the scale</button
  >
</Section>
<Section title="Length and velocity">
  <div class="flex flex-wrap gap-1 py-1">
    <button class="control" data-help="Twice as long." onclick={() => desk.shape({ percent: 200 })}
      >longer</button
    >
    <button class="control" data-help="Half as long." onclick={() => desk.shape({ percent: 50 })}
      >shorter</button
    >
    <button class="control" data-help="Velocity 8 up." onclick={() => desk.shape({ velocity: 8 })}
      >louder</button
    >
    <button
      class="control"
      data-help="Velocity 8 down."
      onclick={() => desk.shape({ velocity: -8 })}>softer</button
    >
    <button
      class="control"
      disabled={!desk.selected.size}
      data-help="Delete the selected notes. Delete"
      onclick={() => desk.delete()}>delete</button
    >
  </div>
</Section>
<Section title="Controllers">
  <ChoiceRow
    label="One in each"
    help="Of each controller the last value in every such length is kept, if it changes anything."
    value={thinTo}
    choices={rates}
    select={(value) => (thinTo = value)}
  />
  <button
    class="control"
    data-help="Thin controllers, bends and pressure out, of the selected track or of all."
    onclick={() => desk.edit({ thin: { ...tracks, grid: thinTo } })}>thin out</button
  >
</Section>
