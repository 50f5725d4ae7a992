<!--
@component
What the selected steps of the cursor's lane have of their own in place of the lane's: a spread, weights, and of pitches which notes are allowed. Several steps
show their ranges, and are changed together.
-->
<script lang="ts">
  import type { EditJSON, Spread, StepOwn } from "../../api/types";
  import { newSpread } from "../../chart/spreads";
  import { getChartView, getSession } from "../../state/context";
  import AllowedFields from "./AllowedFields.svelte";
  import SpreadFields from "./SpreadFields.svelte";
  import WeightFields from "./WeightFields.svelte";

  const session = getSession();
  const view = getChartView();
  const name = $derived(view.cursor.lane);
  const spec = $derived(session.spec(name));
  const lane = $derived(session.lane(name));
  const steps = $derived(view.stepsOf(name));
  const owns = $derived(steps.map((step): StepOwn => lane.own?.[step] ?? {}));
  const first: StepOwn = $derived(owns[0] ?? {});
  const spread = $derived(owns.some((own) => own.spread));
  const weights = $derived(owns.some((own) => own.weights?.length));
  const any = $derived(spread || weights || owns.some((own) => own.allowed?.length));
  const alike = (key: keyof StepOwn) =>
    owns.every((own) => JSON.stringify(own[key]) === JSON.stringify(first[key]));
  const many = $derived(steps.length > 1);

  function setEach(change: (own: StepOwn) => StepOwn): Promise<void> {
    const { address } = session;
    const [at, of] = [[...steps], name];
    return session.editAll("chance of steps", () => {
      const { own } = session.lane(of, session.partAt(address));
      return at.map((step): EditJSON => ({
        setOwn: { ...address, lane: of, step, own: change(own?.[step] ?? {}) },
      }));
    });
  }

  /** The spread of a step, or the one that it would have. */
  function spreadOf({ spread }: StepOwn): Spread {
    const usual = lane.spread?.depth ? lane.spread : newSpread(spec, 100);
    return spread ?? usual;
  }

  function without(own: StepOwn, ...keys: (keyof StepOwn)[]): StepOwn {
    return Object.fromEntries(
      Object.entries(own).filter(([key]) => !keys.includes(key as keyof StepOwn)),
    );
  }
</script>

<p class="caption">
  {spec.label} of {many ? `${steps.length} selected steps` : `step ${(steps[0] ?? 0) + 1}`}, in
  place of what the lane has.
</p>
<button
  class="control my-1 w-full"
  aria-pressed={spread}
  data-help="A spread of the step's own in place of the lane's. Press again to have it as the lane."
  onclick={() =>
    setEach((own) => (spread ? without(own, "spread") : { ...own, spread: spreadOf(own) }))}
  >own spread{spread && !alike("spread") ? " (not all alike)" : ""}</button
>
{#if spread}
  <SpreadFields
    {name}
    of="{name} step"
    step={steps[0] ?? 0}
    spreads={owns.map(spreadOf)}
    set={(change) =>
      setEach((own) => ({ ...own, spread: { ...spreadOf(own), ...change(spreadOf(own)) } }))}
  />
{/if}
{#if spec.notes}
  <AllowedFields
    allowed={first.allowed ?? []}
    mixed={!alike("allowed")}
    set={(allowed) =>
      setEach((own) => ({ ...without(own, "allowed"), ...(allowed.length > 0 && { allowed }) }))}
  />
{/if}
<button
  class="control my-1 w-full"
  aria-pressed={weights}
  data-help="Weights of the step's own: a table from which its value is drawn in place of the lane's. Press again to have it as the lane."
  onclick={() =>
    setEach((own) => {
      if (weights) return without(own, "weights");
      const value = view.values(name)[steps[0] ?? 0] ?? spec.default;
      const line = { lowest: value, highest: value, weight: 1 };
      return { ...own, weights: lane.weights?.length ? lane.weights : [line] };
    })}>own weights{weights && !alike("weights") ? " (not all alike)" : ""}</button
>
{#if weights}
  <WeightFields
    {name}
    weights={first.weights ?? []}
    otherwise="the lane"
    set={(made) => setEach((own) => ({ ...own, weights: made(own.weights ?? []) }))}
  />
{/if}
{#if any}
  <button
    class="control my-1 w-full"
    data-help="Take all of this back: the selected steps are as the lane."
    onclick={() => setEach((own) => without(own, "spread", "weights", "allowed"))}
    >as the lane</button
  >
{/if}
