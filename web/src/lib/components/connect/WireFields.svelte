<!-- @component How an output's messages go over the wire: what instruments of one kind or another need. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Output } from "../../api/types";
  import { getOutputs } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  let { output }: { output: Output } = $props();

  const outputs = getOutputs();
  const device = $derived(output.kind === "serverDevice");

  type Switch = "activeSensing" | "paced" | "runningStatus";
  const switches: { of: Switch; words: string; help: string; device: boolean }[] = [
    {
      of: "activeSensing",
      words: "active sensing",
      help: "Say every 0.27 s that the output is there, so that an instrument which misses it ends its notes.",
      device: false,
    },
    {
      of: "paced",
      words: "pace of a MIDI cable",
      help: "Send bytes no faster than a MIDI cable takes them, 31,250 bits a second, for a device that loses what comes faster.",
      device: true,
    },
    {
      of: "runningStatus",
      words: "running status",
      help: "Leave status bytes out that are those of the message before, so that less goes over the cable.",
      device: true,
    },
  ];
</script>

<Section title="wire" summary={output.gap ? `gap ${output.gap} ms` : ""}>
  <NumberRow
    label="gap"
    name="Gap of the output"
    help="How long a key is up before it is struck again, taken from the end of the note before, for an instrument that misses it otherwise."
    unit="ms"
    value={output.gap ?? 0}
    {...bounds.Output.gap}
    usual={0}
    commit={(gap) => outputs.change(output, { gap })}
  />
  <NumberRow
    label="controller rate"
    help="How many values of one controller are sent in a second at most; of those that come faster the last one counts. 0 sends all."
    unit={output.controllerRate ? "a second" : "0: all"}
    value={output.controllerRate ?? 0}
    {...bounds.Output.controllerRate}
    usual={0}
    commit={(controllerRate) => outputs.change(output, { controllerRate })}
  />
  <ChoiceRow
    label="notes end by"
    help="By what notes end: note-off, or a note-on of velocity 0, which MIDI takes for the same and some instruments want."
    value={output.velocityZero ? "zero" : "off"}
    choices={[
      { value: "off", label: "note-off" },
      { value: "zero", label: "note-on, velocity 0" },
    ]}
    select={(value) => outputs.change(output, { velocityZero: value === "zero" })}
  />
  {#each switches.filter((one) => device || !one.device) as { of, words, help } (of)}
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={output[of] ?? false}
      data-help={help}
      onclick={() => outputs.change(output, { [of]: !output[of] })}>{words}</button
    >
  {/each}
</Section>
