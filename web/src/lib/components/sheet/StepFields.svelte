<!-- @component Every value of the chosen step, each read where its own lane stands for that number. -->
<script lang="ts">
  import type { LaneName } from "../../api/types";
  import { Gate } from "../../chart/gate";
  import { degreeName, lengthUnit } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import NumberField from "../number-field/NumberField.svelte";

  const session = getSession();
  const view = getChartView();

  const lane = $derived(view.cursor.lane);
  const step = $derived(view.stepOf(lane));
  const loop = $derived(loopOf(lane));
  const length = $derived(session.lane(loop).length);
  const specs = $derived(session.lanes.filter((s) => loopOf(s.name as LaneName) === loop));
  const gates = [
    { value: Gate.off, name: "off" },
    { value: Gate.on, name: "on" },
    { value: Gate.tie, name: "tie" },
  ];

  function loopOf(name: LaneName): LaneName {
    return session.lane(name).linked ? "gate" : name;
  }

  function set(name: LaneName, to: number): Promise<void> {
    return view.write(name, { [step]: to });
  }

  const units: Partial<Record<LaneName, string>> = {
    pitch: "degree",
    probability: "%",
  };
</script>

{#snippet field(name: LaneName, value: number, least: number, most: number)}
  <div class="flex h-[30px] items-center justify-between gap-2">
    <span>{name}</span>
    {#if name === "gate"}
      <span class="flex" role="group" aria-label="gate of step {step + 1}">
        {#each gates as gate (gate.name)}
          <button
            class="control px-1.5!"
            aria-pressed={value === gate.value}
            onclick={() => set(name, gate.value)}>{gate.name}</button
          >
        {/each}
      </span>
    {:else}
      <span class="flex items-center gap-1">
        {#if name === "pitch"}
          <span class="text-ink-2 font-mono">{degreeName(value, view.degrees)}</span>
        {/if}
        <span class="caption">{name === "length" ? lengthUnit(value) : (units[name] ?? "")}</span>
        <NumberField
          label="{name} of step {step + 1}"
          {value}
          min={least}
          max={most}
          commit={(to) => set(name, to)}
        />
      </span>
    {/if}
  </div>
{/snippet}

<h2 class="text-[14px] font-semibold">
  Step {step + 1} <span class="text-ink-2 font-normal">of {length}</span>
</h2>
<p class="caption mb-1">{loop === "gate" ? "the gate's loop" : `the ${loop} lane's own loop`}</p>
{#each specs as spec (spec.name)}
  {@const name = spec.name as LaneName}
  {@render field(name, view.values(name)[step] ?? 0, spec.least, spec.most)}
{/each}
