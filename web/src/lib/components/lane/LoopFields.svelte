<!-- @component How long a lane's loop is, how long its steps are, and in which order it walks them. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Lane, LaneChange } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";
  import OrderPicker from "./OrderPicker.svelte";

  interface Props {
    label: string;
    lane: Lane;
    set: (change: LaneChange) => Promise<void>;
  }
  let { label, lane, set }: Props = $props();

  const session = getSession();
</script>

<div class="flex items-center gap-1">
  <NumberField
    label="{label} loop length in steps"
    help="Loop length in steps, 1 to 64. What lies beyond the end is kept."
    value={lane.length}
    min={1}
    max={bounds.Lane.length.max - lane.first}
    width="2ch"
    commit={(length) => set({ length })}
  />
  <span class="text-ink-2" aria-hidden="true">×</span>
  <select
    class="control w-[62px]"
    aria-label="{label} rate"
    data-help="Rate: the length of the lane's own step. A dot adds half, t is a triplet."
    value={lane.rate}
    onchange={(event) => set({ rate: event.currentTarget.value })}
  >
    {#each session.lists.rates as rate (rate.name)}
      <option value={rate.name}>{rate.name}</option>
    {/each}
  </select>
  <OrderPicker {lane} label="{label} order" select={(order) => set({ order })} />
</div>
