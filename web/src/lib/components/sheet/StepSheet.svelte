<!--
@component
Every value of the selected steps: those in the box, or the one under the cursor, read where its own lane
stands for that number.
-->
<script lang="ts">
  import type { LaneName, LaneSpec } from "../../api/types";
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";
  import Section from "../fields/Section.svelte";
  import AddLane from "./AddLane.svelte";
  import DetailFields from "./DetailFields.svelte";
  import OwnFields from "./OwnFields.svelte";
  import StepNotes from "./StepNotes.svelte";
  import StepRow from "./StepRow.svelte";

  const session = getSession();
  const view = getChartView();

  const lane = $derived(view.cursor.lane);
  const loop = $derived(loopOf(lane));
  const step = $derived(view.stepOf(lane));
  const specs: LaneSpec[] = $derived(
    session.lanes.filter((s) => (view.boxed ? view.selected[s.name] : loopOf(s.name) === loop)),
  );
  const gates = $derived(
    view.boxed ? (view.selected[gateLane] ?? []) : loop === gateLane ? [view.stepOf(gateLane)] : [],
  );
  const count = $derived(
    Object.values(view.selected).reduce((sum, steps) => sum + steps.length, 0),
  );

  const spec = $derived(session.spec(lane));
  const own = $derived(view.stepsOf(lane));
  const noteSummary = $derived(`${view.notesOf(lane, own[0] ?? 0).length}`);
  const reach = $derived(
    view.chartPart?.lanes
      .find((one) => one.lane === lane)
      ?.reaches.find(({ step, own: has }) => has && step === own[0]),
  );

  function loopOf(name: LaneName): LaneName {
    return session.lane(name).linked ? gateLane : name;
  }
</script>

{#if view.boxed}
  <h2 class="text-[14px] font-semibold">
    {count} steps <span class="text-ink-2 font-normal">in {specs.length} lanes</span>
  </h2>
  <p class="caption mb-1">
    Type to set all, drag or use arrows to move all. Esc clears the selection.
  </p>
{:else}
  <h2 class="text-[14px] font-semibold">
    Step {step + 1} <span class="text-ink-2 font-normal">of {session.lane(loop).length}</span>
  </h2>
  <p class="caption mb-1">
    {loop === gateLane ? "the gate's loop" : `the ${loop} lane's independent loop`}
  </p>
{/if}
{#each specs as spec (spec.name)}
  <StepRow {spec} steps={view.boxed ? (view.selected[spec.name] ?? []) : [step]} />
{/each}
{#if spec.notes && own.length > 0}
  <Section title="notes" summary={noteSummary}><StepNotes /></Section>
{/if}
{#if !spec.leads && own.length > 0}
  <Section title="chance of the step" summary={reach?.words ?? "as the lane"}><OwnFields /></Section
  >
{/if}
{#if gates.length > 0}<DetailFields steps={gates} />{/if}
<button
  class="control my-1 w-full"
  aria-pressed={view.locked}
  data-help="Lock: rolling and evolving leave the selected steps as they are, in {view.boxed
    ? 'all their lanes'
    : `the ${lane} lane`}. K"
  onclick={() => view.toggleLocks()}>{view.boxed ? "lock them" : `lock ${lane}`}</button
>
<AddLane />
