<!-- @component A field: its grid, its notes in time, and the lanes that its sounding cells move. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { Moments } from "../../state/moments.svelte";
  import LaneGrid from "../chart/LaneGrid.svelte";
  import FieldBar from "./FieldBar.svelte";
  import FieldGrid from "./FieldGrid.svelte";
  import InTime from "./InTime.svelte";
  import NextSounds from "./NextSounds.svelte";

  const session = getSession();
  const moments = new Moments(session);

  const lanes = $derived(session.lanes.filter((spec) => !spec.leads && spec.reads !== "degree"));
</script>

<section
  data-area
  class="grid min-h-0 min-w-0 grid-rows-[36px_minmax(300px,1fr)_minmax(0,auto)]"
  aria-label="Chart of {session.track.name}"
>
  <FieldBar {moments} />
  <div class="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)_minmax(120px,220px)]">
    <FieldGrid {moments} />
    <div class="border-line grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_auto] border-l">
      <InTime {moments} />
      <NextSounds {moments} />
    </div>
  </div>
  <LaneGrid {lanes} place="border-line max-h-[230px] border-t" />
</section>
