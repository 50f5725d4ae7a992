<!-- @component When gate steps may sound, how long they last, and whether rolls pass them by. -->
<script lang="ts">
  import type { EditJSON, StepDetail, StepRatchet } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import ConditionFields from "./ConditionFields.svelte";
  import LengthFields from "./LengthFields.svelte";
  import StepRatchetFields from "./StepRatchetFields.svelte";

  let { steps }: { steps: number[] } = $props();

  const session = getSession();
  const view = getChartView();
  const details = $derived(steps.map((step) => session.part.details?.[step] ?? {}));
  const detail: StepDetail = $derived(details[0] ?? {});
  const mixed = $derived(details.some((d) => (d.condition ?? "") !== (detail.condition ?? "")));
  const shape = (d: StepDetail) => JSON.stringify(d.ratchet ?? null);

  /** Gives all steps what is made of the first one's detail. */
  function set(made: (first: StepDetail) => Partial<StepDetail>): Promise<void> {
    return setEach((before, first) => ({ ...before, ...made(first) }));
  }

  function setEach(change: (before: StepDetail, first: StepDetail) => StepDetail): Promise<void> {
    const { address } = session;
    const at = [...steps];
    return session.editAll("steps", () => {
      const now = session.partAt(address)?.details;
      const of = (step = 0): StepDetail => now?.[step] ?? {};
      return at.map((step): EditJSON => ({
        setDetail: { ...address, step, detail: change(of(step), of(at[0])) },
      }));
    });
  }

  /** Gives steps a ratchet that is made of the first one's, and whose empty lists count for nothing, or takes it away. */
  function setRatchet(
    made: (before: StepRatchet | undefined) => StepRatchet | undefined,
  ): Promise<void> {
    return setEach((before, first) => {
      const rest = { ...before };
      delete rest.ratchet;
      const ratchet = made(first.ratchet);
      if (!ratchet) return rest;
      const { shares = [], hitOdds = [], counts = [], ...shape } = ratchet;
      return {
        ...rest,
        ratchet: {
          ...shape,
          ...(shares.length > 0 && { shares }),
          ...(hitOdds.length > 0 && { hitOdds }),
          ...(counts.length > 0 && { counts }),
        },
      };
    });
  }
</script>

<ConditionFields
  condition={detail.condition ?? ""}
  {mixed}
  words={view.chartPart?.details[steps[0] ?? 0]?.condition ?? ""}
  commit={(made) => set((first) => ({ condition: made(first.condition ?? "") }))}
/>
<LengthFields {detail} {set} />
<StepRatchetFields
  ratchet={detail.ratchet}
  mixed={details.some((d) => shape(d) !== shape(detail))}
  set={setRatchet}
/>
<button
  class="control my-1 w-full"
  aria-pressed={detail.skip ?? false}
  data-help="Skip: the step is passed over in no time, and the loop is that much shorter."
  onclick={() => set((first) => ({ skip: !first.skip }))}>skip</button
>
