<!-- @component The meter. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  const meter = $derived(session.project.meter);
  const units = [2, 4, 8, 16] as const;
</script>

<div>
  <div class="caption">meter</div>
  <div class="flex items-center gap-0.5">
    <NumberField
      label="Beats in a bar"
      help="Beats in a bar, 1 to 16."
      value={meter.beats}
      min={1}
      max={16}
      width="2ch"
      commit={(beats) => session.edit({ setProject: { meter: { ...meter, beats } } })}
    />
    <span class="text-ink-2" aria-hidden="true">/</span>
    <select
      class="control"
      aria-label="Note value of a beat"
      data-help="Note value of a beat."
      value={meter.unit}
      onchange={(event) => {
        const unit = units.find((u) => String(u) === event.currentTarget.value) ?? meter.unit;
        void session.edit({ setProject: { meter: { ...meter, unit } } });
      }}
    >
      {#each units as unit (unit)}<option value={unit}>{unit}</option>{/each}
    </select>
  </div>
</div>
