<!-- @component A list from which a control is selected that is to be moved. -->
<script lang="ts">
  import { openByArrows } from "../../input/openByArrows";
  import type { Control, Listing } from "../../api/types";
  import type { Movers } from "../../state/movers.svelte";
  import { sameControl } from "../../state/stage.svelte";

  interface Props {
    movers: Movers;
    label: string;
    /** Which controls there are to select from. */
    want: (spec: Listing) => boolean;
    /** Those that are taken already. */
    without: readonly Control[];
    select: (control: Control) => unknown;
  }
  let { movers, label, want, without, select }: Props = $props();

  const listed = $derived(
    movers.controls(want).filter(({ control }) => !without.some((c) => sameControl(c, control))),
  );
  const groups = $derived([...new Set(listed.map(({ of }) => of))]);
</script>

<select
  class="control my-1 w-full"
  aria-label={label}
  {@attach openByArrows}
  data-help={label}
  value=""
  onchange={(event) => {
    const one = listed[Number(event.currentTarget.value)];
    event.currentTarget.value = "";
    if (one) select(one.control);
  }}
>
  <option value="">+ control …</option>
  {#each groups as group (group)}
    <optgroup label={group}>
      {#each listed as { of, words }, i (i)}
        {#if of === group}<option value={String(i)}>{words}</option>{/if}
      {/each}
    </optgroup>
  {/each}
</select>
