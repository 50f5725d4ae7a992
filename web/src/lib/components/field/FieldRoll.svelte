<!-- @component Rolls a field: new notes, or arrows that lead somewhere, in all cells that are not locked. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getChartView, getSession } from "../../state/context";
  import { randomLuck } from "../../state/luck";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  const session = getSession();
  const view = getChartView();
  const field = view.field;
  const rolling = $derived(field.rolling);
  const numbers = {
    notes: [
      { of: "density", label: "density", unit: "%", help: "In how many cells there is a note." },
      {
        of: "lowest",
        label: "from",
        unit: undefined,
        help: "The lowest note, by its name or its degree.",
      },
      { of: "highest", label: "to", unit: undefined, help: "The highest note." },
    ],
    loops: [
      { of: "loops", label: "loops", unit: undefined, help: "How many loops there are." },
      {
        of: "length",
        label: "cells",
        unit: undefined,
        help: "How many cells a loop has; one that finds no room is shorter.",
      },
    ],
    tree: [],
    noise: [{ of: "density", label: "walls", unit: "%", help: "How many cells are walls." }],
  } as const;

  async function set(change: Partial<typeof rolling>): Promise<void> {
    field.rolling = { ...field.rolling, ...change };
  }
</script>

<p class="text-ink-2 pb-1">Rolls all cells of the field that are not locked.</p>
<ChoiceRow
  label="roll"
  name="What is rolled"
  help="What is written into the cells."
  value={rolling.do}
  choices={session.lists.fields.rolls}
  select={(what) => set({ do: what as typeof rolling.do })}
/>
{#each numbers[rolling.do] as { of, label, unit, help } (of)}
  <NumberRow
    {label}
    name="{label} of the roll"
    {help}
    {...unit ? { unit } : {}}
    {...of === "lowest" || of === "highest" ? view.degreeText : {}}
    value={rolling[of]}
    {...bounds.FieldRollRequest[of]}
    commit={(value) => set({ [of]: value })}
  />
{/each}
<button
  class="control mt-1 w-full"
  data-help="Roll from a new number. Undo takes it back."
  onclick={() => field.roll(randomLuck())}>roll the field</button
>
<NumberRow
  label="from number"
  name="Number of the roll"
  help="The number from which the last roll followed; the same number rolls the same."
  value={rolling.luck}
  {...bounds.FieldRollRequest.luck}
  width="7ch"
  commit={(luck) => field.roll(luck)}
/>
