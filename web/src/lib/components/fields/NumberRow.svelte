<!-- @component A line of the sheet with a number. -->
<script lang="ts">
  import { getSession } from "../../state/context";
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
    /** The value is a MIDI note, which can be typed by its name or its number. */
    note?: boolean;
    /** What the number counts. */
    unit?: string;
    /** What the field is called where the line's label alone would be ambiguous. */
    name?: string;
    width?: string;
    /** How the value reads, and what a text stands for, where it is more than a number. */
    show?: (value: number) => string;
    read?: (text: string) => number | string | undefined;
    /** Several values in words, and how to move them all; then `value` is one of them. */
    many?: { text: string; shift: (by: number) => Promise<void> } | undefined;
    commit: (value: number) => Promise<void>;
  }
  let { label, help, unit, name, note = false, ...number }: Props = $props();

  const { notes } = getSession();
</script>

<FieldRow {label} {help}>
  {#if unit ?? note}<span class="caption">{unit ?? number.value}</span>{/if}
  <NumberField
    label={name ?? label}
    {help}
    show={note ? (value) => notes.name(value) : undefined}
    read={note ? (text) => notes.of(text) : undefined}
    {...number}
  />
</FieldRow>
