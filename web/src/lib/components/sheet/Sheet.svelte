<!-- @component The selected steps, their lane, their part and their track as numbers and names; and rolling. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";
  import FieldRoll from "../field/FieldRoll.svelte";
  import FieldSheet from "../field/FieldSheet.svelte";
  import LaneSheet from "./LaneSheet.svelte";
  import PartSheet from "./PartSheet.svelte";
  import RollSheet from "./RollSheet.svelte";
  import SheetTabs from "./SheetTabs.svelte";
  import StepSheet from "./StepSheet.svelte";
  import TrackSheet from "./TrackSheet.svelte";

  const view = getChartView();
  const isField = $derived(getSession().track.kind === "field");
  const page = $derived.by(() => {
    if (isField) return view.sheet === "step" ? "field" : view.sheet;
    return view.sheet === "field" ? "step" : view.sheet;
  });
  const first = $derived(
    isField
      ? ({ name: "field", help: "The selected cells, the travellers and their meetings." } as const)
      : ({ name: "step", help: "The selected steps: every value, and when they sound." } as const),
  );
  const pages = $derived([
    first,
    { name: "lane", help: "The lane of the cursor: its loop, its chance, and ways to reshape it." },
    { name: "part", help: "The part: its note, ratchets, chords and durations." },
    { name: "track", help: "The track: where it goes, its time, its pitch and its luck." },
    { name: "roll", help: "Roll: write new random values into steps." },
  ] as const);
</script>

<SheetTabs id="sheet" {pages} {page} open={(page) => (view.sheet = page)}>
  {#if page === "field"}<FieldSheet />
  {:else if page === "step"}<StepSheet />
  {:else if page === "lane"}<LaneSheet />
  {:else if page === "part"}<PartSheet />
  {:else if page === "track"}<TrackSheet />
  {:else if isField}<FieldRoll />
  {:else}<RollSheet />{/if}
</SheetTabs>
