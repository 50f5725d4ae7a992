<!-- @component How a modulator that goes by itself begins, and what bends its shape. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Modulator } from "../../api/types";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  interface Props {
    modulator: Modulator;
    set: (change: Partial<Modulator>) => Promise<void>;
  }
  let { modulator, set }: Props = $props();

  const rows = [
    { of: "phase", by: 10, unit: "%", help: "How far along its pass it begins." },
    {
      of: "symmetry",
      by: 1,
      unit: "%",
      help: "Moves the middle of a pass from its half; of a pulse it is how long it is high.",
    },
    {
      of: "skew",
      by: 1,
      unit: "",
      help: "Bends its levels: above 0 it stays high for longer, below 0 low.",
    },
    {
      of: "fadeIn",
      by: 1,
      unit: "bars",
      help: "How many bars it takes until it moves by all of its depth.",
    },
    {
      of: "restart",
      by: 1,
      unit: "bars",
      help: "Begins it anew every so many bars; 0 never does.",
    },
  ] as const;
</script>

<Section title="How it begins" summary="phase, symmetry, fade-in">
  {#each rows as { of, by, unit, help } (of)}
    <NumberRow
      label={of === "fadeIn" ? "fade-in" : of}
      name="Modulator {of === 'fadeIn' ? 'fade-in' : of}"
      {unit}
      {help}
      value={(modulator[of] ?? 0) / by}
      min={bounds.Modulator[of].min / by}
      max={bounds.Modulator[of].max / by}
      decimals={by > 1 ? 1 : 0}
      commit={(value) => set({ [of]: Math.round(value * by) })}
    />
  {/each}
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={modulator.once ?? false}
    data-help="It goes along one pass and stays at its end."
    onclick={() => set({ once: !modulator.once })}>one pass only</button
  >
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={modulator.restartSections ?? false}
    data-help="It begins anew with each section of the song."
    onclick={() => set({ restartSections: !modulator.restartSections })}
    >restart with sections</button
  >
</Section>
