<!-- @component The screen on which a sequence is written. -->
<script lang="ts">
  import Chart from "../lib/components/chart/Chart.svelte";
  import FieldChart from "../lib/components/field/FieldChart.svelte";
  import Roster from "../lib/components/roster/Roster.svelte";
  import Sheet from "../lib/components/sheet/Sheet.svelte";
  import { getSession } from "../lib/state/context";

  const session = getSession();
</script>

<main
  class="grid min-h-0 grid-cols-[184px_minmax(0,1fr)_246px] max-[1150px]:grid-cols-[150px_minmax(0,1fr)_226px]"
>
  <Roster />
  {#if session.track.kind === "field"}<FieldChart />{:else}<Chart />{/if}
  <Sheet />
</main>
