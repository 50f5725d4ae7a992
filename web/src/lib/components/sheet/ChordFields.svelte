<!-- @component How the notes of the part's chords lie and follow each other, and how slides go. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Part, PartChange } from "../../api/types";
  import type { ChangeOf } from "../../state/selection.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    part: Part;
    set: (change: ChangeOf<Part, PartChange>) => Promise<void>;
  }
  let { part, set }: Props = $props();
</script>

<NumberRow
  label="inversion"
  help="So many of the lowest notes go an octave up."
  value={part.voicing.inversion}
  {...bounds.Voicing.inversion}
  usual={0}
  commit={(inversion) => set((now) => ({ voicing: { ...now.voicing, inversion } }))}
/>
<NumberRow
  label="strum"
  help="The time from the first note to the last, in percent of the step; below 0 downwards."
  unit="%"
  value={part.voicing.strum}
  {...bounds.Voicing.strum}
  usual={0}
  commit={(strum) => set((now) => ({ voicing: { ...now.voicing, strum } }))}
/>
<button
  class="control my-1 w-full"
  aria-pressed={part.voicing.open}
  data-help="Open: every second note an octave up."
  onclick={() => set((now) => ({ voicing: { ...now.voicing, open: !part.voicing.open } }))}
  >open</button
>
<NumberRow
  label="slide time"
  help="The portamento time that is sent for slides (CC 5)."
  value={part.slideTime}
  {...bounds.Part.slideTime}
  usual={0}
  commit={(slideTime) => set({ slideTime })}
/>
