<!-- @component When gate steps may sound, how long they last, and whether rolls pass them by. -->
<script lang="ts">
  import type { EditJSON, StepDetail } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import ConditionFields from "./ConditionFields.svelte";
  import LengthFields from "./LengthFields.svelte";

  let { steps }: { steps: number[] } = $props();

  const session = getSession();
  const view = getChartView();
  const details = $derived(steps.map((step) => session.part.details?.[step] ?? {}));
  const detail: StepDetail = $derived(details[0] ?? {});
  const mixed = $derived(details.some((d) => (d.condition ?? "") !== (detail.condition ?? "")));
  function set(change: Partial<StepDetail>): Promise<void> {
    const edits: EditJSON[] = steps.map((step) => ({
      setDetail: {
        ...session.address,
        step,
        detail: { ...session.part.details?.[step], ...change },
      },
    }));
    return session.editAll("steps", edits);
  }
</script>

<ConditionFields
  condition={detail.condition ?? ""}
  {mixed}
  words={view.chartPart?.conditions[steps[0] ?? 0]?.words ?? ""}
  commit={(condition) => set({ condition })}
/>
<LengthFields {detail} {set} />
<button
  class="control my-1 w-full"
  aria-pressed={detail.skip ?? false}
  data-help="Skip: the step is passed over in no time, and the loop is that much shorter."
  onclick={() => set({ skip: !detail.skip })}>skip</button
>
