<!-- @component The chosen steps, their lane, their part and their track as numbers and names; and rolling. -->
<script lang="ts">
  import { getChartView } from "../../state/context";
  import LaneSheet from "./LaneSheet.svelte";
  import PartSheet from "./PartSheet.svelte";
  import RollSheet from "./RollSheet.svelte";
  import StepSheet from "./StepSheet.svelte";
  import TrackSheet from "./TrackSheet.svelte";

  const view = getChartView();
  const pages = [
    { name: "step", help: "The chosen steps: every value, and when they sound." },
    { name: "lane", help: "The lane of the cursor: its loop, its chance, and ways to reshape it." },
    { name: "part", help: "The part: its note, ratchets, chords and durations." },
    { name: "track", help: "The track: where it goes, its time, its pitch and its luck." },
    { name: "roll", help: "Roll: write new random values into steps." },
  ] as const;
</script>

<aside
  class="border-line bg-paper-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-l"
  aria-label="Sheet"
>
  <div class="border-line flex border-b px-2 pt-1.5" role="tablist" aria-label="Sheet">
    {#each pages as { name, help } (name)}
      <button
        class={[
          "flex-1 cursor-pointer border-b-2 px-1 pb-1",
          view.sheet === name ? "border-signal font-semibold" : "text-ink-2 border-transparent",
        ]}
        role="tab"
        id="sheet-tab-{name}"
        aria-selected={view.sheet === name}
        aria-controls="sheet-page"
        data-help={help}
        onclick={() => (view.sheet = name)}>{name}</button
      >
    {/each}
  </div>
  <div
    class="min-h-0 overflow-y-auto px-3 py-2"
    id="sheet-page"
    role="tabpanel"
    aria-labelledby="sheet-tab-{view.sheet}"
    tabindex="-1"
  >
    {#if view.sheet === "step"}<StepSheet />
    {:else if view.sheet === "lane"}<LaneSheet />
    {:else if view.sheet === "part"}<PartSheet />
    {:else if view.sheet === "track"}<TrackSheet />
    {:else}<RollSheet />{/if}
  </div>
</aside>
