<!-- @component The notes of a step: which they are, and how loud, late and long each of them is by itself. -->
<script lang="ts">
  import type { StepNote } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import StepNoteFields from "./StepNoteFields.svelte";

  const session = getSession();
  const view = getChartView();
  const name = $derived(view.cursor.lane);
  const steps = $derived(view.stepsOf(name));
  const step = $derived(steps[0] ?? 0);
  const own = $derived(session.lane(name).own?.[step]);
  const notes = $derived(view.notesOf(name, step));
  const several = $derived(
    steps.some((step) => (session.lane(name).own?.[step]?.notes?.length ?? 0) > 1),
  );

  function setNote(i: number, change: Partial<StepNote>): Promise<void> {
    return view.setNotes(name, step, (notes) =>
      notes.map((note, at) => (at === i ? { ...note, ...change } : note)),
    );
  }

  function setEach(each: boolean): Promise<void> {
    const { address } = session;
    const [at, lane] = [[...steps], name];
    return session.editAll("notes of steps", () => {
      const { own } = session.lane(lane, session.partAt(address));
      return at.map((step) => ({
        setOwn: { ...address, lane, step, own: { ...own?.[step], each } },
      }));
    });
  }
</script>

{#if steps.length === 1}
  {#each notes as note, i (i)}
    <StepNoteFields
      {note}
      number={i + 1}
      value={view.values(name)[step] ?? 0}
      set={(change) => setNote(i, change)}
      remove={notes.length > 1
        ? () => view.setNotes(name, step, (notes) => notes.filter((_, at) => at !== i))
        : undefined}
    />
  {/each}
  <button
    class="control my-1 w-full"
    data-help="Add a note above the others. On the strip: Shift and a click, or +."
    onclick={() => view.addOrRemoveNote(name, step, true)}>+ note</button
  >
{/if}
<div class="flex gap-1">
  <button
    class="control flex-1"
    disabled={!several}
    data-help="Put the named chord that the notes are in their place. What each had of its own is gone then."
    onclick={() => view.convertChords("name", steps)}>name it</button
  >
  <button
    class="control flex-1"
    disabled={several}
    data-help="Make the notes of the step's named chord notes that can be changed one by one."
    onclick={() => view.convertChords("degrees", steps)}>as degrees</button
  >
</div>
<button
  class="control my-1 w-full"
  aria-pressed={own?.each ?? false}
  disabled={!several}
  data-help="Spread, weights and rolls draw for each note by itself, not once for all of them."
  onclick={() => setEach(!own?.each)}>each note by itself</button
>
