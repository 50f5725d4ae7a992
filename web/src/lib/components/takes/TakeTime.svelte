<!-- @component Corrections of a take's time, and the way back to the project that made it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Summary } from "../../api/types";
  import { counted } from "../../counted";
  import { getSession, getTakeDesk } from "../../state/context";
  import { randomLuck } from "../../state/luck";
  import NumberField from "../fields/NumberField.svelte";
  import Section from "../fields/Section.svelte";

  let { summary }: { summary: Summary } = $props();

  const session = getSession();
  const desk = getTakeDesk();

  let luck = $state(randomLuck());

  const stretch = $derived(desk.stretch);
  const words = $derived.by(() => {
    if (!stretch) return "Drag over the bar numbers to select a stretch.";
    const bar = (tick: number) => Number((desk.barLines.position(tick) + 1).toFixed(2));
    return `Selected: from bar ${bar(stretch.from)} to before bar ${bar(stretch.to)}.`;
  });

  /** Selects all whole bars of the take. */
  function selectAll(): void {
    if (desk.roll) desk.selectStretch(0, desk.roll.end);
  }

  async function change(edit: "trim" | "cutOut"): Promise<void> {
    if (!stretch) return;
    const { from } = stretch;
    await desk.edit(
      edit === "trim" ? { trim: { ...stretch, aligned: true } } : { cutOut: stretch },
    );
    desk.selectStretch(from, from);
  }
</script>

<Section title="Stretch">
  <p class="text-ink-2 pb-1">{words}</p>
  <div class="flex flex-wrap gap-1 py-1">
    <button class="control" data-help="Select the whole take." onclick={selectAll}>all</button>
    <button
      class="control"
      disabled={!stretch}
      data-help="Trim: keep the stretch in its bars, take away what lies around it. What was recorded is kept: undo brings it back."
      onclick={() => change("trim")}>trim to it</button
    >
    <button
      class="control"
      disabled={!stretch}
      data-help="Cut: take the stretch out; what comes after it moves up."
      onclick={() => change("cutOut")}>cut it out</button
    >
    <button
      class="control"
      disabled={!stretch || stretch.from === 0}
      data-help="Split: two takes more, of what is before the stretch's beginning and of what is after. This one stays."
      onclick={() => stretch && session.shelf.split(summary, stretch.from)}
      >split at its start</button
    >
  </div>
</Section>
<Section title="What made it">
  {#if summary.revision}
    <p class="text-ink-2 pb-1">
      Luck {summary.luck}, revision {summary.revision} of the project, as it was when the take began.
    </p>
    <button
      class="control"
      data-help="Make the project what it was when this take began. Undo brings the present one back."
      onclick={() => session.shelf.bringBack(summary)}>bring the project back</button
    >
    <p class="text-ink-2 pt-2 pb-1">
      What was edited and performed while it was recorded is its log: it can be played again, note
      for note, or with another luck.
    </p>
    <div class="flex flex-wrap items-center gap-1">
      <button
        class="control"
        data-help="Another take, as the log of this one plays it once more."
        onclick={() => session.shelf.playAgain(summary, desk.actions.mends)}>play again</button
      >
      <button
        class="control"
        data-help="Another take, of all that was done while this one was recorded, under this luck from the beginning of playing on."
        onclick={() => session.shelf.playAgain(summary, desk.actions.mends, luck)}
        >play again with luck</button
      >
      <NumberField
        label="Luck to play again with"
        value={luck}
        {...bounds.AgainRequest.luck}
        width="7ch"
        commit={async (value) => {
          luck = value;
        }}
      />
    </div>
    <p class="text-ink-2 pt-2 pb-1">
      {desk.actions.all.length > 0
        ? `${counted(desk.actions.all.length, "action")} on the ruler: drag one to move it, Delete leaves it out; then play again.`
        : "Nothing was performed while it was recorded."}
    </p>
    <div class="flex flex-wrap items-center gap-1">
      <button
        class="control"
        disabled={desk.actions.mends.length === 0}
        data-help="Have all actions be where they were performed."
        onclick={() => desk.actions.reset()}>as performed</button
      >
      <button
        class="control"
        disabled={desk.actions.all.length === 0}
        data-help="Write the live changes that stood at the end of the take into the project, where they differ from what is written. Undo takes that back."
        onclick={() => session.shelf.storeStage(summary)}>store what differs</button
      >
    </div>
  {:else}
    <p class="text-ink-2">It came from a file, so no project made it.</p>
  {/if}
</Section>
