<!-- @component The selected steps, their lane, their part and their track as numbers and names; and rolling. -->
<script lang="ts">
  import { getChartView } from "../../state/context";
  import LaneSheet from "./LaneSheet.svelte";
  import PartSheet from "./PartSheet.svelte";
  import RollSheet from "./RollSheet.svelte";
  import SheetTabs from "./SheetTabs.svelte";
  import StepSheet from "./StepSheet.svelte";
  import TrackSheet from "./TrackSheet.svelte";

  const view = getChartView();
  const pages = [
    { name: "step", help: "The selected steps: every value, and when they sound." },
    { name: "lane", help: "The lane of the cursor: its loop, its chance, and ways to reshape it." },
    { name: "part", help: "The part: its note, ratchets, chords and durations." },
    { name: "track", help: "The track: where it goes, its time, its pitch and its luck." },
    { name: "roll", help: "Roll: write new random values into steps." },
  ] as const;
</script>

<SheetTabs id="sheet" {pages} page={view.sheet} open={(page) => (view.sheet = page)}>
  {#if view.sheet === "step"}<StepSheet />
  {:else if view.sheet === "lane"}<LaneSheet />
  {:else if view.sheet === "part"}<PartSheet />
  {:else if view.sheet === "track"}<TrackSheet />
  {:else}<RollSheet />{/if}
</SheetTabs>
