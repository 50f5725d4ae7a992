<!-- @component How the hits of the part's ratchets lie, how loud they are, and how often they sound. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Part, PartChange } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    part: Part;
    set: (change: ChangeOf<Part, PartChange>) => Promise<void>;
  }
  let { part, set }: Props = $props();

  const session = getSession();
</script>

<ChoiceRow
  label="spacing"
  help="How the hits of a ratchet lie in the step."
  value={part.ratchet.spacing}
  choices={session.lists.spacings}
  select={(spacing) =>
    set((now) => ({
      ratchet: { ...now.ratchet, spacing: spacing as Part["ratchet"]["spacing"] },
    }))}
/>
<NumberRow
  label="ramp"
  help="How much the velocity changes from the first hit to the last."
  unit="%"
  value={part.ratchet.ramp}
  {...bounds.RatchetShape.ramp}
  usual={0}
  commit={(ramp) => set((now) => ({ ratchet: { ...now.ratchet, ramp } }))}
/>
<NumberRow
  label="odds"
  help="How often each hit but the first sounds."
  unit="%"
  value={part.ratchet.odds}
  {...bounds.RatchetShape.odds}
  usual={100}
  commit={(odds) => set((now) => ({ ratchet: { ...now.ratchet, odds } }))}
/>
