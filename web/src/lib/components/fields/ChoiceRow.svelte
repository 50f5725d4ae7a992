<!-- @component A line of the sheet with a choice from a list. -->
<script lang="ts">
  import { openByArrows } from "../../input/openByArrows";
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    label: string;
    help: string;
    value: string;
    /** What there is to select: values, or values and what they are called. */
    choices: readonly (string | { value: string; label: string; help?: string })[];
    name?: string;
    /** Whether a choice does something at once, as adding what is chosen, in place of being the value from then on. */
    acts?: boolean;
    select: (value: string) => unknown;
  }
  let { label, help, value, choices, name, acts = false, select }: Props = $props();

  /** Takes what was selected; where it is refused the choice is again what it was. */
  async function take(list: HTMLSelectElement): Promise<void> {
    await select(list.value);
    list.value = value;
  }

  const listed = $derived(
    choices.map((c): { value: string; label: string; help?: string } =>
      typeof c === "string" ? { value: c, label: c } : c,
    ),
  );
  /** What the choice in force does, behind what the line is about. */
  const helps = $derived(
    [help, listed.find((c) => c.value === value)?.help ?? ""].join(" ").trim(),
  );
</script>

<FieldRow {label} help={helps}>
  <select
    class="control max-w-[132px] min-w-[40px]"
    aria-label={name ?? label}
    data-help={helps}
    {@attach acts && openByArrows}
    {value}
    onchange={(event) => take(event.currentTarget)}
  >
    {#each listed as choice (choice.value)}
      <option value={choice.value}>{choice.label}</option>
    {/each}
  </select>
</FieldRow>
