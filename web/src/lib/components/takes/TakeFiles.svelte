<!-- @component Ways to export a take. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getOutputs, getSession, getTakeDesk } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import Section from "../fields/Section.svelte";
  import TakeSound from "./TakeSound.svelte";

  let { summary }: { summary: Summary } = $props();

  const session = getSession();
  const desk = getTakeDesk();

  let division = $state("960");
  let format = $state("1");
  let only = $state(false);

  /** The bars of the selected stretch, whole. */
  const bars = $derived.by(() => {
    if (!desk.stretch) return undefined;
    const from = desk.barLines.at(desk.stretch.from) + 1;
    return { from, to: Math.max(from + 1, Math.ceil(desk.barLines.position(desk.stretch.to)) + 1) };
  });
  const stretch = $derived(only && bars ? `&from=${bars.from}&to=${bars.to}` : "");
  const query = $derived(`?format=${format}&division=${division}${stretch}`);
  const voltages = $derived(
    (session.project.outputs ?? []).filter(({ kind }) => kind === "voltages"),
  );
  const { voltages: voltageOutputs } = getOutputs();

  /** The name of the interface that an output is on this machine, if channels of it were read. */
  function readOf(output: string): string | undefined {
    const on = voltageOutputs.interfaces.boundTo(output);
    return session.calibrations.some((c) => c.interface === on) ? on : undefined;
  }

  const path = $derived(`api/takes/${summary.id}`);
</script>

<Section title="Standard MIDI File">
  <ChoiceRow
    label="Resolution"
    help="Ticks a quarter note: 960 is what most programs like best; 20160 is exact, so that nothing is rounded."
    value={division}
    choices={[
      { value: "960", label: "960" },
      { value: "20160", label: "20160, exact" },
    ]}
    select={(value) => (division = value)}
  />
  <ChoiceRow
    label="Tracks"
    help="Format 1 has a track of tempo, meter and markers and one for each track; format 0 has all in one."
    name="Format"
    value={format}
    choices={[
      { value: "1", label: "each its own" },
      { value: "0", label: "all in one" },
    ]}
    select={(value) => (format = value)}
  />
  <label
    class="flex min-h-[29px] items-center gap-2"
    data-help="Export only the whole bars of the selected stretch."
  >
    <input type="checkbox" class="accent-ink" bind:checked={only} disabled={!bars} />
    {bars ? `only bars ${bars.from} to ${bars.to - 1}` : "only the selected stretch (none is)"}
  </label>
  <div class="flex flex-wrap gap-1 py-1">
    <a
      class="control"
      href="{path}.mid{query}"
      download
      data-help="One file with all tracks that are not muted.">.mid</a
    >
    <a
      class="control"
      href="{path}.zip{query}"
      download
      data-help="A .zip with a file for each track that is not muted.">.mid for each track</a
    >
  </div>
</Section>
<Section title="Table">
  <a
    class="control"
    href="{path}.csv{query}"
    download
    data-help="A table of all messages, for a spreadsheet.">.csv</a
  >
</Section>
{#each voltages as { id, name } (id)}
  {@const read = readOf(name)}
  <Section title="Voltages">
    <div class="flex flex-wrap items-center gap-1 py-1">
      <span class="min-w-0 flex-1 truncate">{name}</span>
      <a
        class="control"
        href="{path}/voltages.wav?output={id}{stretch}"
        download
        data-help="A .wav of 32-bit floats at 48 kHz, a channel a signal, to be played by a DC-coupled interface. Only tracks that go to {name} are in it."
        >.wav</a
      >
      {#if read}
        <a
          class="control"
          href="{path}/voltages.wav?output={id}{stretch}&interface={encodeURIComponent(read)}"
          download
          data-help="The same, corrected by what was read of {read}, for that interface alone."
          >.wav, corrected</a
        >
      {/if}
      <a
        class="control"
        href="{path}/voltages.json?output={id}{stretch}"
        download="{name}.json"
        data-help="What each channel of the .wav is.">.json</a
      >
    </div>
  </Section>
{/each}
<TakeSound {summary} />
