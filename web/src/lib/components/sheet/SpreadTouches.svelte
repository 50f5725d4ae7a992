<!-- @component To which written values a spread, or several, add anything. -->
<script lang="ts">
  import type { ComponentProps } from "svelte";
  import type { LaneSpec, Spread } from "../../api/types";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  type Row = ComponentProps<typeof NumberRow>;
  interface Props {
    spec: LaneSpec;
    spread: Spread;
    /** Names the fields: that of the lane, or of steps. */
    of: string;
    /** How values read and are typed. */
    reading: Pick<Row, "show" | "read" | "width">;
    /** The range of a number that differs between several spreads. */
    many: (key: "from" | "to") => Row["many"];
    set: (change: Partial<Spread>) => Promise<void>;
  }
  let { spec, spread, of, reading, many, set }: Props = $props();
</script>

<ChoiceRow
  label="touches"
  name="{of} spread touches"
  help="To which written values anything is added: to all, to those of a range, or to all others, as to leave a pedal note alone."
  value={spread.touches ?? ""}
  choices={[
    { value: "", label: "all values" },
    { value: "within", label: "values from … to" },
    { value: "outside", label: "all but from … to" },
  ]}
  select={(touches) => set({ touches: touches as Spread["touches"] & string })}
/>
{#if spread.touches}
  <NumberRow
    label="from"
    name="{of} spread from"
    help="The lowest written value of the range."
    {...reading}
    value={spread.from ?? 0}
    min={spec.least}
    max={spread.to ?? 0}
    usual={spec.least}
    many={many("from")}
    commit={(from) => set({ from })}
  />
  <NumberRow
    label="to"
    name="{of} spread to"
    help="The highest written value of the range."
    {...reading}
    value={spread.to ?? 0}
    min={spread.from ?? 0}
    max={spec.most}
    usual={spec.most}
    many={many("to")}
    commit={(to) => set({ to })}
  />
{/if}
