<!-- @component What the selected cells hold: their notes and what these have of their own, arrows, letters, walls and repeaters. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Arrow, Cell } from "../../api/types";
  import { directionMarks, directionNames, emptied } from "../../field/cells";
  import { getChartView, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  const session = getSession();
  const view = getChartView();
  const field = view.field;
  const cell: Cell = $derived(field.cell(field.cursor) ?? { ...field.cursor });

  const set = (change: Partial<Cell>) => field.change((c) => ({ ...c, ...change }));

  function setArrows(made: (arrows: Arrow[]) => Arrow[]): Promise<void> {
    const { cursor } = field;
    return field.change((c) => ({ ...c, arrows: made(field.cell(cursor)?.arrows ?? []) }));
  }
  /** The mod lanes that the part has. */
  const mods = $derived(session.lanes.filter(({ mod }) => mod));

  function setMod(mod: number, value: number | undefined): Promise<void> {
    return field.change((c) => {
      if (!c.note) return c;
      const others = (c.mods ?? []).filter((one) => one.mod !== mod);
      return { ...c, mods: value === undefined ? others : [...others, { mod, value }] };
    });
  }
  const switches = [
    { of: "repeater", help: "A wave that reaches the cell starts another one here." },
    { of: "locked", help: "The cell stays as it is where the field is rolled." },
  ] as const;
  const numbers = [
    { of: "velocity", unit: "" },
    { of: "length", unit: "%" },
    { of: "ratchet", unit: "×" },
    { of: "probability", unit: "%" },
  ] as const;
</script>

<div class="flex gap-1 pb-1">
  <button
    class="control flex-1"
    aria-pressed={cell.note ?? false}
    data-help="The cell has a note; a new one is that of the layout. Enter"
    onclick={() => field.change((c) => (cell.note ? { ...c, note: false } : field.withNote(c)))}
    >note</button
  >
  <button
    class="control flex-1"
    aria-pressed={cell.wall ?? false}
    data-help="No traveller comes here, and no wave passes."
    onclick={() => field.change((c) => ({ ...emptied(c), wall: !cell.wall }))}>wall</button
  >
</div>
{#if cell.note}
  <NumberRow
    label="pitch"
    name="Pitch of the cell"
    help="The note of the cell, by its name or its degree; where the track has its pitches from a chord, the number of a note of that, of which 0 is the first."
    value={cell.degree ?? 0}
    {...view.degreeText}
    {...bounds.Cell.degree}
    usual={0}
    commit={(degree) => field.change((c) => (c.note ? { ...c, degree } : c))}
  />
  <NumberRow
    label="octave"
    name="Octave of the cell"
    help="Octaves that are added to the note."
    value={cell.octave ?? 0}
    {...bounds.Cell.octave}
    usual={0}
    commit={(octave) => field.change((c) => (c.note ? { ...c, octave } : c))}
  />
  {#each numbers as { of, unit } (of)}
    <NumberRow
      label={of}
      name="{of} of the cell"
      help="The cell's own {of}; 0 is as the lane has it."
      unit={(cell[of] ?? 0) === 0 ? "lane" : unit}
      value={cell[of] ?? 0}
      {...bounds.Cell[of]}
      usual={0}
      commit={(value) => field.change((c) => (c.note ? { ...c, [of]: value } : c))}
    />
  {/each}
  {#each mods as { mod = 0, name, label } (name)}
    {@const own = cell.mods?.find((one) => one.mod === mod)}
    <FieldRow
      {label}
      help="The cell's own value of the lane, which goes out with its note; without it, the lane's."
    >
      {#if own}
        <NumberField
          label="{label} of the cell"
          help="The cell's own value of the lane, which goes out with its note."
          value={own.value}
          {...bounds.CellMod.value}
          usual={64}
          commit={(value) => setMod(mod, value)}
        />
        <button
          class="control px-1!"
          aria-label="Remove {label} of the cell"
          onclick={() => setMod(mod, undefined)}>×</button
        >
      {:else}
        <button class="control" aria-label="Own {label} of the cell" onclick={() => setMod(mod, 64)}
          >as the lane</button
        >
      {/if}
    </FieldRow>
  {/each}
{/if}
{#each cell.arrows ?? [] as arrow, i (i)}
  <FieldRow
    label={directionMarks[arrow.to] ?? ""}
    help="Where travellers that follow arrows go on to from here, and how likely, in percent of all of the cell's weights."
  >
    <select
      class="control"
      aria-label="Direction of arrow {i + 1}"
      value={arrow.to}
      onchange={(event) => {
        const to = Number(event.currentTarget.value);
        void setArrows((arrows) => arrows.map((a, k) => (k === i ? { ...a, to } : a)));
      }}
    >
      {#each directionNames as name, to (to)}
        <option
          value={to}
          disabled={to !== arrow.to && (cell.arrows ?? []).some((a) => a.to === to)}>{name}</option
        >
      {/each}
    </select>
    <NumberField
      label="Weight of arrow {i + 1}"
      help="How likely the arrow is among the others of the cell; 0 leads nowhere."
      value={arrow.weight}
      {...bounds.Arrow.weight}
      usual={100}
      commit={(weight) =>
        setArrows((arrows) => arrows.map((a, k) => (k === i ? { ...a, weight } : a)))}
    />
    <button
      class="control px-1!"
      aria-label="Remove arrow {i + 1}"
      onclick={() => setArrows((arrows) => arrows.filter((_, k) => k !== i))}>×</button
    >
  </FieldRow>
{/each}
<button
  class="control my-0.5 w-full"
  disabled={(cell.arrows ?? []).length >= 8 || cell.wall}
  data-help="One more way on from the cell; several are a fork."
  onclick={() => {
    const free = directionNames.findIndex(
      (_, to) => !(cell.arrows ?? []).some((a) => a.to === (to + 2) % 8),
    );
    return field.change((c) => field.withArrow(c, (free + 2) % 8, false), [field.cursor]);
  }}>+ arrow</button
>
<ChoiceRow
  label="letter"
  name="Letter of the cell"
  help="Whoever arrives goes on at once from another cell of that letter."
  value={cell.letter ?? ""}
  choices={[
    { value: "", label: "none" },
    ...Array.from("ABCDEFGHIJKLMNOPQRSTUVWXYZ", (letter) => ({ value: letter, label: letter })),
  ]}
  select={(letter) => set({ letter })}
/>
{#if cell.letter}
  <ChoiceRow
    label="leads to"
    name="Where the letter leads"
    help="To which cell of the letter."
    value={cell.jump ?? ""}
    choices={session.lists.fields.jumps}
    select={(jump) => set({ jump: jump as NonNullable<Cell["jump"]> })}
  />
{/if}
{#each switches as { of, help } (of)}
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={cell[of] ?? false}
    data-help={help}
    onclick={() => set({ [of]: !cell[of] })}>{of}</button
  >
{/each}
