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

  function set(change: Partial<StepDetail>): Promise<void> {
    return setEach((before) => ({ ...before, ...change }));
  }

  function setEach(change: (before: StepDetail) => StepDetail): Promise<void> {
    const edits: EditJSON[] = steps.map((step) => ({
      setDetail: { ...session.address, step, detail: change(session.part.details?.[step] ?? {}) },
    }));
    return session.editAll("steps", edits);
  }

  /** Gives steps a ratchet, whose empty lists count for nothing, or takes it away. */
  function setRatchet(ratchet: StepRatchet | undefined): Promise<void> {
    return setEach((before) => {
      const rest = { ...before };
      delete rest.ratchet;
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
  commit={(condition) => set({ condition })}
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
  onclick={() => set({ skip: !detail.skip })}>skip</button
>
