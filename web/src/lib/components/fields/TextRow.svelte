<!-- @component A line of the sheet with a name. -->
<script lang="ts">
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    label: string;
    help: string;
    value: string;
    name: string;
    /** Whether there can be none. */
    blank?: boolean;
    commit: (value: string) => unknown;
  }
  let { label, help, value, name, blank = false, commit }: Props = $props();
</script>

<FieldRow {label} {help}>
  <input
    class="control w-[132px]"
    maxlength="60"
    autocomplete="off"
    aria-label={name}
    {value}
    onkeydown={(event) => {
      if (event.key === "Escape") event.currentTarget.value = value;
    }}
    onchange={(event) => {
      const text = event.currentTarget.value.trim();
      if ((text || blank) && text !== value) commit(text);
      else event.currentTarget.value = value;
    }}
  />
</FieldRow>
