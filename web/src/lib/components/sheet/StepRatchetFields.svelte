<!-- @component The ratchet of a step, where it is another than the part's: how its hits lie, sound and climb, and how many there are. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { StepRatchet } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import NumbersRow from "../fields/NumbersRow.svelte";

  interface Props {
    /** Nothing is as the part has it. */
    ratchet: StepRatchet | undefined;
    /** Whether the steps that are selected have different ones. */
    mixed: boolean;
    set: (made: (before: StepRatchet | undefined) => StepRatchet | undefined) => Promise<void>;
  }
  let { ratchet, mixed, set }: Props = $props();

  const session = getSession();
  const kit = $derived(session.track.kind === "kit");

  function turn(): Promise<void> {
    const own = ratchet ? undefined : { ...session.part.ratchet };
    return set(() => own);
  }

  function change(change: Partial<StepRatchet>): Promise<void> {
    const usual = session.part.ratchet;
    return set((before) => ({ ...(before ?? usual), ...change }));
  }
</script>

<button
  class="control my-1 w-full"
  aria-pressed={ratchet !== undefined}
  data-help="A ratchet of the step's own in place of the part's: how its hits lie, how often each sounds, how many there are. Press again to have it as the part."
  onclick={turn}>own ratchet{mixed ? " (not all alike)" : ""}</button
>
{#if ratchet}
  {#if !ratchet.shares}
    <ChoiceRow
      label="spacing"
      name="Spacing of the step"
      help="How the hits of the ratchet lie in the step."
      value={ratchet.spacing}
      choices={session.lists.spacings}
      select={(spacing) => change({ spacing: spacing as StepRatchet["spacing"] })}
    />
  {/if}
  <NumbersRow
    label="hit lengths"
    help="How long the hits are beside each other, in place of the spacing, as 3 2 1: each hit has one, and hits beyond the list begin with it anew."
    values={ratchet.shares ?? []}
    none="by spacing"
    commit={(shares) => change({ shares })}
  />
  <NumberRow
    label="ramp"
    name="Ramp of the step"
    help="How much the velocity changes from the first hit to the last."
    unit="%"
    value={ratchet.ramp}
    {...bounds.RatchetShape.ramp}
    usual={0}
    commit={(ramp) => change({ ramp })}
  />
  {#if !ratchet.hitOdds}
    <NumberRow
      label="odds"
      name="Odds of the step"
      help="How often each hit but the first sounds."
      unit="%"
      value={ratchet.odds}
      {...bounds.RatchetShape.odds}
      usual={100}
      commit={(odds) => change({ odds })}
    />
  {/if}
  <NumbersRow
    label="odds by hit"
    help="How often the second hit and those after it sound, in percent, in place of the odds, as 100 60 30."
    values={ratchet.hitOdds ?? []}
    none="by odds"
    commit={(hitOdds) => change({ hitOdds })}
  />
  {#if !kit}
    <NumberRow
      label="walk"
      name="Walk of the step"
      help="How many degrees of the scale each hit is above the one before; below 0 below it."
      value={ratchet.walk ?? 0}
      {...bounds.StepRatchet.walk}
      usual={0}
      commit={(walk) => change({ walk })}
    />
  {/if}
  <NumbersRow
    label="hits drawn"
    help="A table from which the number of hits is drawn, in place of the ratchet lane: the weight of one hit, of two, of three and so on, as 3 0 1."
    values={ratchet.counts ?? []}
    none="by the lane"
    commit={(counts) => change({ counts })}
  />
{/if}
