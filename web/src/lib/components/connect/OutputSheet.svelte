<!-- @component One output: which port of this machine plays it, when it is sent, and a test of it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Output } from "../../api/types";
  import { counted } from "../../counted";
  import { getOutputs, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import ClockFields from "./ClockFields.svelte";
  import CueFields from "./CueFields.svelte";
  import ProgramSheet from "./ProgramSheet.svelte";
  import VoltageSheet from "./VoltageSheet.svelte";
  import WireFields from "./WireFields.svelte";

  /** Without an output it is the built-in sound. */
  let { output, removed }: { output: Output | undefined; removed: () => void } = $props();

  const session = getSession();
  const outputs = getOutputs();
  const dropped = $derived(output ? (session.devices.stateOf(output)?.dropped ?? 0) : 0);
  let channel = $state<number>(bounds.Track.channel.min);

  /** What can be selected, by kind and name: ports of the browser, and devices of the machine. */
  const selected = $derived(output ? `${output.kind}:${outputs.portOf(output) ?? ""}` : "");
  const choices = $derived.by(() => {
    const named = (kind: Output["kind"], names: readonly string[], where: string) =>
      [...new Set(names)].map((name) => ({ value: `${kind}:${name}`, label: name + where }));
    const here = named(
      "browserPort",
      outputs.browser.ports.map(({ name }) => name),
      "",
    );
    const machine = named(
      "serverDevice",
      session.devices.list.map(({ name }) => name),
      " (server)",
    );
    const own = [{ value: selected, label: selected.replace(/^\w+:/, "") || "none" }];
    const all = [{ value: `${output?.kind}:`, label: "none" }, ...here, ...machine];
    return all.some(({ value }) => value === selected) ? all : [...all, ...own];
  });

  function select(value: string): Promise<void> | undefined {
    const [kind, ...name] = value.split(":");
    return output && outputs.select(output, kind as Output["kind"], name.join(":"));
  }
</script>

{#if output}
  <TextRow
    label="output"
    name="Name of the output"
    help="What the output is called. A project knows its outputs by name."
    value={output.name}
    commit={(name) => outputs.change(output, { name })}
  />
{/if}
{#if output?.kind === "voltages"}
  <VoltageSheet {output} />
{:else if output?.kind === "osc"}
  <ProgramSheet {output} />
{:else if output}
  <ChoiceRow
    label="port"
    name="Port of the output"
    help="What plays the output: a MIDI port of this browser, or a MIDI device of the machine on which the program runs (server). It stays with this machine, not with the project."
    value={selected}
    {choices}
    {select}
  />
  <p class="text-ink-2 py-1" data-dropped={dropped}>{outputs.stateOf(output).words}</p>
  {#if dropped}
    <p class="text-signal pb-1">
      {counted(dropped, "controller value")} left out, as the device was behind.
    </p>
  {/if}
  {#if session.devices.problem}
    <p class="text-ink-2 pb-1">{session.devices.problem}.</p>
  {/if}
  {#if outputs.browser.access !== true}
    <p class="text-ink-2 pb-1">Press “use MIDI ports” to see what this browser has.</p>
  {/if}
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
  <ClockFields {output} />
  <WireFields {output} />
  <NumberRow
    label="test channel"
    help="The channel on which the test note is sent."
    value={channel}
    {...bounds.Track.channel}
    commit={async (value) => {
      channel = value;
    }}
  />
{:else}
  <h2 class="text-[15px] font-semibold">Built-in sound</h2>
  <p class="text-ink-2 pb-2">
    A synth of six patches and a percussion kit in this page, for hearing a project without an
    instrument. Every project has it. Press a route in its column to select the patch.
  </p>
  <button
    class="control w-full"
    aria-pressed={session.player.sounds}
    data-help="Have what goes to the built-in sound be heard in this page, or leave it to other pages."
    onclick={() => session.sound.here(!session.player.sounds)}>sounds in this page</button
  >
  <CueFields />
{/if}
{#if output?.kind !== "voltages"}
  <button
    class="control mt-2 w-full"
    data-help="Play a middle C here."
    onclick={() => outputs.test(output, channel)}>test note</button
  >
{/if}
{#if output}
  <button
    class="control mt-2 w-full"
    data-help="Remove the output, and the routes that lead here. Undo brings them back."
    onclick={async () => {
      await outputs.remove(output);
      removed();
    }}>remove the output</button
  >
{/if}
