<!-- @component Ways to write the selected steps of a lane, or its whole loop, anew from what they are. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { LaneName, Reshape } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  let { name }: { name: LaneName } = $props();

  const session = getSession();
  const view = getChartView();
  let hits = $state(5);
  const linked = $derived(session.lane(name).linked);

  /** Reshapes the lane and those that are acted on with it; about its length and its rhythm it decides alone. */
  function reshape(what: Reshape["do"], by = 0): Promise<void> {
    const steps = view.selected[name] ?? [];
    const alone = ["double", "halve", "euclid"].some((one) => one === what);
    const lanes = alone ? [name] : view.actedOn(name);
    return session.editAll(
      `${what} steps`,
      lanes.map((lane) => ({
        reshape: {
          ...{ ...session.address, lane, do: what, by },
          ...(alone && what !== "euclid" ? {} : { steps }),
        },
      })),
    );
  }
</script>

<ChoiceRow
  label="acts on"
  name="What copying and reshaping act on"
  help="What copy and the buttons below act on: this lane, all lanes that sit on the gate's steps with all that those have, or some of these lanes."
  value={view.along}
  choices={[
    { value: "lane", label: "this lane" },
    { value: "steps", label: "whole steps" },
    { value: "some", label: "some lanes" },
  ]}
  select={(along) => (view.along = along as typeof view.along)}
/>
{#if view.along !== "lane" && !view.onGate(name)}
  <p class="caption pb-1">This lane has an independent loop, so it is acted on alone.</p>
{:else if view.along === "some"}
  <div class="flex flex-wrap gap-1 pb-1" role="group" aria-label="Lanes to act on">
    {#each session.lanes.filter((one) => view.onGate(one.name)) as one (one.name)}
      <button
        class="control px-1.5!"
        aria-label="Act on {one.label}"
        aria-pressed={view.alongLanes.includes(one.name)}
        onclick={() => view.toggleAlong(one.name)}>{one.label}</button
      >
    {/each}
  </div>
{/if}
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
