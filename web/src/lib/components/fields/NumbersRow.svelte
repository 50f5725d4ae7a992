<!-- @component A line of the sheet with several whole numbers, which are typed with spaces or commas between them. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    label: string;
    help: string;
    values: readonly number[];
    name?: string;
    /** What stands there while there are none. */
    none: string;
    commit: (values: number[]) => unknown;
  }
  let { label, help, values, name, none, commit }: Props = $props();

  const { notices } = getSession();
  const text = $derived(values.join(" "));

  function read(typed: string): number[] | undefined {
    const numbers = typed.split(/[\s,]+/).filter((part) => part !== "");
    return numbers.every((part) => /^\d+$/.test(part)) ? numbers.map(Number) : undefined;
  }

  function change(input: HTMLInputElement): void {
    const numbers = read(input.value);
    if (!numbers)
      notices.add(`“${input.value}” is no list of whole numbers; ${label} stays as it was.`);
    else if (numbers.join(" ") !== text) return void commit(numbers);
    input.value = text;
  }
</script>

<FieldRow {label} {help}>
  <input
    class="control w-[132px] font-mono"
    autocomplete="off"
    placeholder={none}
    aria-label={name ?? label}
    data-help={help}
    value={text}
    onkeydown={(event) => {
      if (event.key === "Escape") event.currentTarget.value = text;
    }}
    onchange={(event) => change(event.currentTarget)}
  />
</FieldRow>
