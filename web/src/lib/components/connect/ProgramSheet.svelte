<!-- @component An output that is a program which understands OSC: where it is, and what it is sent. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Output } from "../../api/types";
  import { getOutputs, getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";

  let { output }: { output: Output } = $props();

  const session = getSession();
  const outputs = getOutputs();
  const tracks = $derived(
    session.project.tracks.filter((track) =>
      outputs.routesOf(track).some((route) => route.output === output.id),
    ),
  );

  /** What a track sends, and what the arguments are. */
  const messages = [
    ["note", "key, velocity"],
    ["pitch", "hertz, volts"],
    ["velocity", "0 to 1"],
    ["gate", "1 or 0"],
    ["mod/1 … 8", "0 to 1"],
  ];
</script>

<TextRow
  label="address"
  name="Address of the output"
  help="The IP address and the port at which the program listens, as 127.0.0.1:9000. It stays with this machine, not with the project."
  value={outputs.portOf(output) ?? ""}
  blank
  commit={(address) => session.attempt(() => session.devices.bind(output.name, address))}
/>
<p class="text-ink-2 py-1">{outputs.stateOf(output).words}</p>
<button
  class="control my-0.5 w-full justify-start!"
  aria-pressed={output.standIn ?? false}
  data-help="While nothing is there that plays this output, the built-in sound does; else it is silent then."
  onclick={() => outputs.change(output, { standIn: !output.standIn })}
  >built-in sound while missing</button
>
<NumberRow
  label="offset"
  name="Offset of the output"
  help="How much later everything is sent here; below 0 earlier, for an instrument that is slow to answer."
  unit="ms"
  value={output.offset ?? 0}
  {...bounds.Output.offset}
  usual={0}
  commit={(offset) => outputs.change(output, { offset })}
/>
<NumberRow
  label="ahead"
  name="How far ahead bundles are sent"
  help="How long before its time a bundle is sent, for a program that keeps to time tags. At 0 it is sent at its time, for one that does not."
  unit="ms"
  value={output.tagLead ?? 0}
  {...bounds.Output.tagLead}
  usual={0}
  commit={(tagLead) => outputs.change(output, { tagLead })}
/>
<h2 class="pt-2 font-semibold">What is sent</h2>
<dl class="font-mono text-[12px]" aria-label="Messages of the output">
  {#each tracks as track (track.id)}
    <dt class="pt-1 font-sans font-semibold">{track.name}</dt>
    {#each messages as [of, what] (of)}
      <dd class="flex flex-wrap justify-between gap-x-2">
        <span>/track/{track.id}/{of}</span><span class="caption">{what}</span>
      </dd>
    {/each}
  {:else}
    <dt class="text-ink-2 font-sans">No track goes here yet: press “–” in its column.</dt>
  {/each}
  <dt class="pt-1 font-sans font-semibold">Time</dt>
  <dd class="flex justify-between gap-x-2"><span>/run</span><span class="caption">1 or 0</span></dd>
  <dd class="flex justify-between gap-x-2">
    <span>/bar</span><span class="caption">from 1</span>
  </dd>
  <dd class="flex justify-between gap-x-2">
    <span>/beat</span><span class="caption">from 1</span>
  </dd>
</dl>
