<!-- @component Where a lane's loop begins and ends, how it walks, and what moves it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Lane, LaneChange, LaneName } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import OrderPicture from "../lane/OrderPicture.svelte";

  let { name, lane }: { name: LaneName; lane: Lane } = $props();

  const session = getSession();
  const spec = $derived(session.spec(name));

  function set(change: ChangeOf<Lane, LaneChange>): Promise<void> {
    return session.setLane(name, change);
  }
</script>

{#if !spec.leads}
  <button
    class="control mb-1 w-full"
    aria-pressed={!lane.linked}
    data-help="Independent loop: the lane has a loop of its own. Off, it sits on the gate's step."
    onclick={() => set({ linked: !lane.linked })}>independent loop</button
  >
{/if}
{#if !lane.linked}
  <NumberRow
    label="length"
    name="{name} length"
    help="Loop length in steps, 1 to 64. What lies beyond the end is kept."
    unit="steps"
    value={lane.length}
    min={1}
    max={bounds.Lane.length.max - lane.first}
    usual={16}
    commit={(length) => set({ length })}
  />
  <NumberRow
    label="first step"
    name="{name} first step"
    help="The step at which the loop begins, from 1."
    value={lane.first + 1}
    min={1}
    max={bounds.Lane.length.max + 1 - lane.length}
    usual={1}
    commit={(first) => set({ first: first - 1 })}
  />
  <ChoiceRow
    label="rate"
    name="rate of {name}"
    help="The length of the lane's own step. A dot adds half, t is a triplet."
    value={lane.rate}
    choices={session.lists.rates.map((rate) => rate.name)}
    select={(rate) => set({ rate })}
  />
  <div class="grid grid-cols-4 gap-1 py-1" role="group" aria-label="order of {name}">
    {#each session.lists.orders as order (order.name)}
      <button
        class="control h-[24px]! px-0!"
        aria-label={order.label}
        aria-pressed={lane.order === order.name}
        data-help="Order: {order.label}. {order.help}"
        onclick={() => set({ order: order.name })}
        ><OrderPicture order={order.name} path={lane.path} /></button
      >
    {/each}
  </div>
  {#if lane.order === "path"}
    <ChoiceRow
      label="along"
      help="A shape over the loop's steps, laid out in rows in a square."
      acts
      value=""
      choices={[
        { value: "", label: "a shape…" },
        ...session.lists.shapes.map((shape) => ({ value: shape.name, label: shape.name })),
      ]}
      select={(shape) => shape && set({ shape })}
    />
    <label class="caption block" for="path-{name}">steps of the path, from 1</label>
    <input
      id="path-{name}"
      class="control mb-1 w-full"
      autocomplete="off"
      data-help="The path as numbers of steps, in the order in which they play."
      value={(lane.path ?? []).map((step) => step + 1).join(" ")}
      onchange={(event) => {
        const steps = event.currentTarget.value.split(/[\s,]+/).filter(Boolean);
        void set({ path: steps.map((step) => Number(step) - 1) });
      }}
    />
  {:else if lane.order === "drift"}
    <NumberRow
      label="step on"
      help="Drift: how often the lane goes a step on."
      unit="%"
      value={lane.drift.forward}
      min={0}
      max={bounds.DriftOdds.forward.max - lane.drift.back}
      usual={50}
      commit={(forward) => set((now) => ({ drift: { ...now.drift, forward } }))}
    />
    <NumberRow
      label="step back"
      help="Drift: how often it goes a step back. Else it stays."
      unit="%"
      value={lane.drift.back}
      min={0}
      max={bounds.DriftOdds.back.max - lane.drift.forward}
      usual={25}
      commit={(back) => set((now) => ({ drift: { ...now.drift, back } }))}
    />
  {/if}
  {#if !spec.leads}
    <ChoiceRow
      label="moved by"
      help="What moves the lane on to its next step."
      value={lane.moves}
      choices={spec.movers}
      select={(moves) => set({ moves })}
    />
  {/if}
{/if}
{#if spec.scaled}
  <NumberRow
    label="amount"
    name="{name} amount"
    help="Scales all values of the lane, 0 to 200 %; what is written stays."
    unit="%"
    value={lane.amount}
    {...bounds.Lane.amount}
    usual={100}
    commit={(amount) => set({ amount })}
  />
{/if}
