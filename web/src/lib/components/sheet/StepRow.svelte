<!-- @component The values of some steps of a lane: one, or many as a range. -->
<script lang="ts">
  import type { LaneName, LaneSpec } from "../../api/types";
  import { Gate } from "../../chart/gate";
  import { degreeOf } from "../../chart/notes";
  import { degreeName, effective, laneHelp, lengthUnit } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  let { spec, steps }: { spec: LaneSpec; steps: number[] } = $props();

  const session = getSession();
  const view = getChartView();
  const name = $derived(spec.name as LaneName);
  const values = $derived(steps.map((step) => view.values(name)[step] ?? spec.default));
  const value = $derived(values[0] ?? spec.default);
  const mixed = $derived(values.some((v) => v !== value));
  const label = $derived(
    steps.length === 1 ? `${name} of step ${(steps[0] ?? 0) + 1}` : `${name} of chosen steps`,
  );
  const heard = $derived(effective(name, session.lane(name).amount, value, spec));
  const gates = [
    { value: Gate.off, name: "off" },
    { value: Gate.on, name: "on" },
    { value: Gate.tie, name: "tie" },
  ];

  function set(to: number): Promise<void> {
    return view.write(name, Object.fromEntries(steps.map((step) => [step, to])));
  }

  function unit(): string {
    if (mixed) return "";
    if (name === "length") return lengthUnit(value);
    if (name === "pitch") return degreeName(value, view.degrees);
    if (name === "chord") return session.lists.chords[value]?.name ?? "";
    if (heard !== value) return `→ ${heard}`;
    return ["probability", "nudge", "swing"].includes(name) ? "%" : "";
  }
</script>

<FieldRow label={name} help={laneHelp(name)}>
  {#if name === "gate"}
    <span class="flex" role="group" aria-label={label}>
      {#each gates as gate (gate.name)}
        <button
          class="control px-1.5!"
          aria-pressed={!mixed && value === gate.value}
          onclick={() => set(gate.value)}>{gate.name}</button
        >
      {/each}
    </span>
  {:else}
    <span class="text-ink-2 max-w-[80px] truncate text-[12px]">{unit()}</span>
    <NumberField
      {label}
      help={laneHelp(name)}
      {value}
      min={spec.least}
      max={spec.most}
      usual={spec.default}
      read={name === "pitch" ? (text) => degreeOf(text, view.degrees) : undefined}
      width={mixed ? "7ch" : "4ch"}
      many={mixed
        ? {
            text: `${Math.min(...values)}–${Math.max(...values)}`,
            shift: (by) => view.write(name, view.raised(name, steps, by)),
          }
        : undefined}
      commit={set}
    />
  {/if}
</FieldRow>
