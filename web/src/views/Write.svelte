<!-- @component The screen on which a sequence is written. -->
<script lang="ts">
  import Chart from "../lib/components/chart/Chart.svelte";
  import Roster from "../lib/components/roster/Roster.svelte";
  import Sheet from "../lib/components/sheet/Sheet.svelte";
</script>

<main
  class="grid min-h-0 grid-cols-[184px_minmax(0,1fr)_246px] max-[1150px]:grid-cols-[150px_minmax(0,1fr)_226px]"
>
  <Roster />
  <Chart />
  <Sheet />
</main>
