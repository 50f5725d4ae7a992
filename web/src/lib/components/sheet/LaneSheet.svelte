<!-- @component The lane of the cursor: its loop, its chance, and ways to write it anew. -->
<script lang="ts">
  import type { LaneName } from "../../api/types";
  import { gateLane } from "../../chart/gate";
  import { getChartView, getSession } from "../../state/context";
  import Section from "../fields/Section.svelte";
  import EvolveFields from "./EvolveFields.svelte";
  import LoopSection from "./LoopSection.svelte";
  import ModFields from "./ModFields.svelte";
  import ReshapeButtons from "./ReshapeButtons.svelte";
  import LaneSpread from "./LaneSpread.svelte";
  import WeightFields from "./WeightFields.svelte";

  const session = getSession();
  const view = getChartView();
  const name = $derived(view.cursor.lane);
  const spec = $derived(session.spec(name));
  const lane = $derived(session.lane(name));
  const spread = $derived(lane.spread);

  /** Takes a lane that is not essential off the chart; undo brings it back. */
  function remove(): void {
    void session.edit({ restoreLane: { ...session.address, lane: name } });
    view.moveCursor(gateLane, view.stepOf(gateLane));
  }
</script>

<div class="flex items-center gap-2 pb-1">
  <select
    class="control min-w-0 flex-1 font-semibold"
    aria-label="Lane"
    data-help="The lane that this page is about; also by a click on a lane."
    value={name}
    onchange={(event) => view.moveCursor(event.currentTarget.value as LaneName, view.cursor.step)}
  >
    {#each session.lanes as { name, label } (name)}<option value={name}>{label}</option>{/each}
  </select>
  {#if !spec.always}
    <button class="control" data-help="Take the lane away. Undo brings it back." onclick={remove}
      >remove</button
    >
  {/if}
</div>
<p class="caption pb-1">{spec.help}</p>
{#if spec.mod}
  <Section title="goes to"><ModFields {name} /></Section>
{/if}
<Section title="loop" summary={lane.linked ? "the gate's" : `${lane.length} × ${lane.rate}`}>
  <LoopSection {name} {lane} />
</Section>
<Section title="reshape"><ReshapeButtons {name} /></Section>
{#if !spec.leads}
  <Section
    title="spread"
    summary={spread && spread.depth > 0 && spread.chance > 0
      ? `${spread.lowest} to ${spread.highest}`
      : "none"}
  >
    <LaneSpread {name} {lane} />
  </Section>
  <Section title="weights" summary={lane.weights?.length ? `${lane.weights.length} lines` : "none"}>
    <WeightFields
      {name}
      weights={lane.weights ?? []}
      otherwise="what is written"
      set={(made) => session.setLane(name, (now) => ({ weights: made(now.weights ?? []) }))}
    />
  </Section>
  <Section
    title="evolve"
    summary={lane.evolve?.percent ? `${lane.evolve.percent} % every ${lane.evolve.every}` : "never"}
  >
    <EvolveFields {name} {lane} />
  </Section>
{/if}
