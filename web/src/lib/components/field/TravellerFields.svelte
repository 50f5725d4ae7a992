<!-- @component The travellers of a field, one of which is selected: how it moves and how it sounds. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Traveller } from "../../api/types";
  import { directionMarks, directionNames } from "../../field/cells";
  import { getChartView, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  const session = getSession();
  const field = getChartView().field;
  const traveller = $derived(field.traveller);
  const lists = $derived(session.lists.fields);

  function set(change: Partial<Traveller>): Promise<void> {
    return traveller ? field.setTraveller(traveller.id, change) : Promise.resolve();
  }
</script>

<div class="flex flex-wrap gap-1 pb-1" role="group" aria-label="Travellers">
  {#each field.travellers as { id, motion } (id)}
    <button
      class="control min-w-[28px]"
      aria-pressed={traveller?.id === id}
      aria-label="Traveller {id}, {motion}"
      onclick={() => field.selectTraveller(traveller?.id === id ? undefined : id)}>{id}</button
    >
  {/each}
  <button
    class="control"
    disabled={field.travellers.length >= 16}
    data-help="A traveller that starts in the cell of the cursor."
    onclick={() => field.dropTraveller(field.cursor)}>+ traveller</button
  >
</div>
{#if traveller}
  <ChoiceRow
    label="motion"
    name="Motion of the traveller"
    help="How it moves."
    value={traveller.motion}
    choices={lists.motions}
    select={(motion) => set({ motion: motion as Traveller["motion"] })}
  />
  {#each ["column", "row"] as const as of (of)}
    <NumberRow
      label="start, {of}"
      name="Start {of} of the traveller"
      help="In which {of} it starts."
      value={traveller[of] + 1}
      min={1}
      max={bounds.Traveller[of].max + 1}
      usual={1}
      commit={(value) => set({ [of]: value - 1 })}
    />
  {/each}
  {#if traveller.motion === "straight"}
    <ChoiceRow
      label="direction {directionMarks[traveller.direction ?? 0]}"
      name="Direction of the traveller"
      help="In which direction it starts."
      value={String(traveller.direction ?? 0)}
      choices={directionNames.map((label, to) => ({ value: String(to), label }))}
      select={(to) => set({ direction: Number(to) })}
    />
  {/if}
  <ChoiceRow
    label="rate"
    name="Rate of the traveller"
    help="How long it stays in a cell; a wave widens as often."
    value={traveller.rate}
    choices={session.lists.rates.map(({ name }) => name)}
    select={(rate) => set({ rate })}
  />
  <NumberRow
    label="starts after"
    name="Steps after which the traveller starts"
    help="After how many steps of its rate it starts."
    value={traveller.startsAfter ?? 0}
    {...bounds.Traveller.startsAfter}
    usual={0}
    commit={(startsAfter) => set({ startsAfter })}
  />
  {#if traveller.motion === "straight"}
    <ChoiceRow
      label="at edges"
      name="What the traveller does at edges"
      help="What it does at the edge of the grid or a wall."
      value={traveller.at ?? ""}
      choices={lists.edges}
      select={(at) => set({ at: at as NonNullable<Traveller["at"]> })}
    />
    <ChoiceRow
      label="meets"
      name="What the traveller does where it meets another"
      help="What it does where it meets another traveller, in a cell or between two."
      value={traveller.meets ?? ""}
      choices={lists.meetings}
      select={(meets) => set({ meets: meets as NonNullable<Traveller["meets"]> })}
    />
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={traveller.atTurns ?? false}
      data-help="It sounds where it turns at an edge or a wall, the note of its row or column, and not in cells with notes."
      onclick={() => set({ atTurns: !traveller.atTurns })}>sounds where it turns</button
    >
  {:else if traveller.motion === "wave"}
    <NumberRow
      label="a wave every"
      name="Steps from wave to wave"
      help="How many steps of its rate go by from one wave to the next."
      unit="steps"
      value={traveller.every || 8}
      min={1}
      max={bounds.Traveller.every.max}
      usual={8}
      commit={(every) => set({ every })}
    />
    <ChoiceRow
      label="rings"
      name="Rings of the wave"
      help="What counts as a distance from where it starts."
      value={traveller.shape ?? ""}
      choices={lists.shapes}
      select={(shape) => set({ shape: shape as NonNullable<Traveller["shape"]> })}
    />
  {/if}
  {#each ["velocity", "length"] as const as of (of)}
    <NumberRow
      label={of}
      name="{of} of the traveller"
      help="Its notes' {of}, in percent of what cells and lanes have."
      unit="%"
      value={traveller[of]}
      {...bounds.Traveller[of]}
      usual={100}
      commit={(value) => set({ [of]: value })}
    />
  {/each}
  <NumberRow
    label="octave"
    name="Octave of the traveller"
    help="Octaves that are added to its notes."
    value={traveller.octave ?? 0}
    {...bounds.Traveller.octave}
    usual={0}
    commit={(octave) => set({ octave })}
  />
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={traveller.oneVoice ?? false}
    data-help="Each of its notes ends with its next move at the latest."
    onclick={() => set({ oneVoice: !traveller.oneVoice })}>one voice</button
  >
  <p class="py-0.5"><a class="caption underline" href="#connect">its own output: Connect</a></p>
  <button
    class="control my-0.5 w-full"
    data-help="Remove the traveller. Undo brings it back."
    onclick={() => field.setTraveller(traveller.id, undefined)}
    >remove traveller {traveller.id}</button
  >
{/if}
