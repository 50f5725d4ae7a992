<!-- @component A line of the sheet with a choice from a list. -->
<script lang="ts">
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    label: string;
    help: string;
    value: string;
    /** What there is to choose: values, or values and their words. */
    choices: readonly (string | { value: string; words: string })[];
    name?: string;
    choose: (value: string) => unknown;
  }
  let { label, help, value, choices, name, choose }: Props = $props();

  const listed = $derived(choices.map((c) => (typeof c === "string" ? { value: c, words: c } : c)));
</script>

<FieldRow {label} {help}>
  <select
    class="control max-w-[132px] min-w-0"
    aria-label={name ?? label}
    data-help={help}
    {value}
    onchange={(event) => choose(event.currentTarget.value)}
  >
    {#each listed as choice (choice.value)}
      <option value={choice.value}>{choice.words}</option>
    {/each}
  </select>
</FieldRow>
