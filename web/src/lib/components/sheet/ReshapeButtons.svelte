<!-- @component Ways to write the selected steps of a lane, or its whole loop, anew from what they are. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { LaneName, Reshape } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  let { name }: { name: LaneName } = $props();

  const session = getSession();
  const view = getChartView();
  let hits = $state(5);
  const linked = $derived(session.lane(name).linked);

  function reshape(what: Reshape["do"], by = 0): Promise<void> {
    const steps = view.selected[name] ?? [];
    const whole = what === "double" || what === "halve";
    return session.edit({
      reshape: { ...session.address, lane: name, do: what, by, ...(whole ? {} : { steps }) },
    });
  }
</script>

<div class="flex flex-wrap gap-1 py-1">
  <button
    class="control"
    aria-label="Rotate left"
    data-help="Rotate: every step one to the left."
    onclick={() => reshape("rotate", -1)}>← rotate</button
  >
  <button
    class="control"
    aria-label="Rotate right"
    data-help="Rotate: every step one to the right."
    onclick={() => reshape("rotate", 1)}>rotate →</button
  >
  <button
    class="control"
    data-help="Reverse: the last step first."
    onclick={() => reshape("reverse")}>reverse</button
  >
  <button
    class="control"
    data-help="Invert: high is low within the values that there are; on is off."
    onclick={() => reshape("invert")}>invert</button
  >
  <button
    class="control"
    disabled={linked}
    data-help="Double: the loop twice over, twice as long. The gate's takes the lanes on its steps along."
    onclick={() => reshape("double")}>double</button
  >
  <button
    class="control"
    disabled={linked}
    data-help="Halve: half the loop. The steps beyond are kept."
    onclick={() => reshape("halve")}>halve</button
  >
  <button class="control" data-help="Clear: the default values." onclick={() => reshape("clear")}
    >clear</button
  >
  {#if session.spec(name).leads}
    <button class="control" data-help="All on." onclick={() => reshape("most")}>all on</button>
  {:else}
    <button class="control" data-help="All to the min of the lane." onclick={() => reshape("least")}
      >all min</button
    >
    <button class="control" data-help="All to the max of the lane." onclick={() => reshape("most")}
      >all max</button
    >
  {/if}
  {#if session.spec(name).leads}
    <span class="flex items-center gap-1">
      <NumberField
        label="Gates of a Euclidean rhythm"
        help="How many gates a Euclidean rhythm spreads over the steps."
        value={hits}
        min={0}
        max={bounds.Lane.length.max}
        width="2ch"
        commit={async (value) => {
          hits = value;
        }}
      />
      <button
        class="control"
        data-help="Euclid: so many gates, as even as whole steps allow, and all others off."
        onclick={() => reshape("euclid", hits)}>Euclid</button
      >
    </span>
  {/if}
</div>
