<!-- @component A line of the sheet with a number. -->
<script lang="ts">
  import FieldRow from "./FieldRow.svelte";
  import NumberField from "./NumberField.svelte";

  interface Props {
    label: string;
    help: string;
    value: number;
    min: number;
    max: number;
    step?: number;
    decimals?: number;
    usual?: number | undefined;
    /** What the number counts. */
    unit?: string;
    /** What the field is called where the line's label alone would be ambiguous. */
    name?: string;
    width?: string;
    commit: (value: number) => Promise<void>;
  }
  let { label, help, unit, name, ...number }: Props = $props();
</script>

<FieldRow {label} {help}>
  {#if unit}<span class="caption">{unit}</span>{/if}
  <NumberField label={name ?? label} {help} {...number} />
</FieldRow>
