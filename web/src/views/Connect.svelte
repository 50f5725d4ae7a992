<!-- @component The screen on which tracks are sent to outputs, and outputs to the devices of this machine. -->
<script lang="ts">
  import FaderSheet from "../lib/components/connect/FaderSheet.svelte";
  import InputSheet from "../lib/components/connect/InputSheet.svelte";
  import Monitor from "../lib/components/connect/Monitor.svelte";
  import OutputSheet from "../lib/components/connect/OutputSheet.svelte";
  import RouteSheet from "../lib/components/connect/RouteSheet.svelte";
  import RouteTable from "../lib/components/connect/RouteTable.svelte";
  import SetupSheet from "../lib/components/connect/SetupSheet.svelte";
  import SwitchSheet from "../lib/components/connect/SwitchSheet.svelte";
  import { getOutputs, getSession } from "../lib/state/context";
  import { builtIn } from "../lib/state/outputRoutes.svelte";

  const session = getSession();
  const outputs = getOutputs();

  /** What the sheet shows: an output, how a track goes there, or setups. */
  let shown = $state<{
    output: number;
    track?: number;
    part?: number | undefined;
    setups?: boolean;
    input?: number;
    switches?: boolean;
    faders?: boolean;
  }>({
    output: builtIn,
  });
  const output = $derived(outputs.list.find(({ id }) => id === shown.output));
  const track = $derived(session.project.tracks.find(({ id }) => id === shown.track));
  const route = $derived(track && outputs.routeTo(track, output?.id ?? builtIn, shown.part));
  const input = $derived(session.inputs.list.find(({ id }) => id === shown.input));
  const part = $derived(track && outputs.partsOf(track).find(({ id }) => id === shown.part));
</script>

<main
  class="grid min-h-0 grid-cols-[minmax(0,1fr)_262px] max-[1150px]:grid-cols-[minmax(0,1fr)_240px]"
>
  <section class="grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_190px]" aria-label="Outputs">
    <RouteTable {shown} show={(next) => (shown = next)} />
    <Monitor />
  </section>
  <aside data-area class="border-line bg-paper-2 min-h-0 overflow-y-auto border-l px-3 py-2">
    {#if shown.setups}
      <SetupSheet />
    {:else if shown.switches}
      <SwitchSheet />
    {:else if shown.faders}
      <FaderSheet />
    {:else if input}
      <InputSheet {input} removed={() => (shown = { output: builtIn })} />
    {:else if track && route}
      <RouteSheet
        {track}
        {route}
        of={part?.name ?? track.name}
        name={output?.name ?? "Built-in sound"}
        part={shown.part}
      />
    {:else}
      <OutputSheet {output} removed={() => (shown = { output: builtIn })} />
    {/if}
  </aside>
</main>
