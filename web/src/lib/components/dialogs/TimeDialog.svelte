<!-- @component The meters, the tempo changes and the swing of the project. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import { meterOf, meterText } from "../../chart/meter";
  import Dialog from "./Dialog.svelte";
  import MeterChanges from "./MeterChanges.svelte";
  import TempoChanges from "./TempoChanges.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const meter = $derived(session.project.meter);
  const units = [2, 4, 8, 16] as const;
  const grids = ["1/8", "1/16"] as const;
</script>

<Dialog bind:open title="Meter, tempo changes and swing">
  <NumberRow
    label="beats in a bar"
    name="Beats in a bar"
    help="Beats in a bar, 1 to 16."
    value={meter.beats}
    {...bounds.Meter.beats}
    commit={(beats) =>
      session.edit(() => ({
        setProject: { meter: { beats, unit: session.project.meter.unit } },
      }))}
  />
  <ChoiceRow
    label="note value of a beat"
    name="Note value of a beat"
    help="Note value of a beat."
    value={String(meter.unit)}
    choices={units.map((unit) => ({ value: String(unit), label: `1/${unit}` }))}
    select={(value) => {
      const unit = units.find((u) => String(u) === value) ?? meter.unit;
      return session.edit(() => ({ setProject: { meter: { ...session.project.meter, unit } } }));
    }}
  />
  <TextRow
    label="as written"
    name="Meter"
    help="The meter as it is written; 2+2+3/8 groups its beats."
    value={meterText(meter)}
    commit={(text) => {
      const written = meterOf(text);
      if (written) return session.edit({ setProject: { meter: written } });
      session.notices.add(`“${text}” is no meter; write it as 7/8 or 2+2+3/8.`);
    }}
  />
  <MeterChanges />
  <TempoChanges />
  <NumberRow
    label="swing"
    name="Swing in percent"
    help="How much of a pair of grid steps the first one takes: 50 is straight, 66.7 is a triplet feel."
    unit="%"
    value={session.project.swing / 10}
    {...scaled(bounds.Project.swing, 10)}
    step={0.1}
    decimals={1}
    usual={50}
    width="5ch"
    commit={(percent) => session.edit({ setProject: { swing: Math.round(percent * 10) } })}
  />
  <ChoiceRow
    label="swing grid"
    name="Swing grid"
    help="The grid that all tracks swing on, whatever their own steps are."
    value={session.project.swingGrid}
    choices={grids}
    select={(value) => {
      const swingGrid = grids.find((grid) => grid === value);
      return swingGrid && session.edit({ setProject: { swingGrid } });
    }}
  />
  <p class="text-ink-2">
    Pairs of grid steps are counted from the bar line, and a single last step is straight. A track
    can have another amount, or swing by its own steps. Another meter keeps where you are by time:
    bars are counted anew from the beginning.
  </p>
</Dialog>
