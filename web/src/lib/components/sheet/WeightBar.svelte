<!-- @component A line's weight as a number, and as a bar of its true share of all. -->
<script lang="ts">
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    label: string;
    weight: number;
    /** The sum of all weights of the table. */
    total: number;
    commit: (weight: number) => Promise<void>;
  }
  let { label, weight, total, commit }: Props = $props();

  const percent = $derived(total === 0 ? 0 : (100 * weight) / total);
</script>

<div class="mt-0.5 flex items-center gap-1">
  <NumberField
    {label}
    help="Weight: how likely the line is, against the sum of all."
    value={weight}
    min={0}
    max={1000}
    usual={1}
    width="4ch"
    {commit}
  />
  <span class="border-line bg-paper h-[14px] min-w-0 flex-1 border">
    <span class="bg-ink block h-full" style:width="{percent}%"></span>
  </span>
  <span class="w-[54px] text-right font-mono text-[12px] whitespace-nowrap"
    >{percent.toFixed(1)} %</span
  >
</div>
