<!-- @component The values of some steps of a lane: one, or many as a range; those with words by their words. -->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { effective, shortText, unitText } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  let { spec, steps }: { spec: LaneSpec; steps: number[] } = $props();

  const session = getSession();
  const view = getChartView();
  const name = $derived(spec.name);
  const values = $derived(steps.map((step) => view.values(name)[step] ?? spec.default));
  const value = $derived(values[0] ?? spec.default);
  const mixed = $derived(values.some((v) => v !== value));
  const label = $derived(
    steps.length === 1
      ? `${spec.label} of step ${(steps[0] ?? 0) + 1}`
      : `${spec.label} of selected steps`,
  );
  const heard = $derived(effective(view.inForce(name), value, spec));
  const words = $derived(spec.words?.map((text, i) => ({ text, value: spec.least + i })) ?? []);
  /** So many words stand beside each other as buttons; more are a list. */
  const mostButtons = 3;

  function set(to: number): Promise<void> {
    return view.write(name, Object.fromEntries(steps.map((step) => [step, to])));
  }

  /** A value as the field shows it: a degree as the note that it is. */
  function shown(value: number): string {
    return spec.reads === "degree" ? shortText(spec, value, view) : String(value);
  }

  function unit(): string {
    if (mixed) return "";
    return heard !== value ? `→ ${heard}` : unitText(spec, value, view);
  }
</script>

<FieldRow label={spec.label} help={spec.help}>
  {#if words.length > mostButtons}
    <select
      class="control max-w-[132px] min-w-0"
      aria-label={label}
      value={mixed ? "" : value}
      onchange={(event) => set(Number(event.currentTarget.value))}
    >
      {#if mixed}<option value="" disabled>different ones</option>{/if}
      {#each words as word (word.value)}<option value={word.value}>{word.text}</option>{/each}
    </select>
  {:else if words.length > 0}
    <span class="flex" role="group" aria-label={label}>
      {#each words as word (word.value)}
        <button
          class="control px-1.5!"
          aria-pressed={!mixed && value === word.value}
          onclick={() => set(word.value)}>{word.text}</button
        >
      {/each}
    </span>
  {:else}
    <span class="text-ink-2 max-w-[80px] truncate text-[12px]">{unit()}</span>
    <NumberField
      {label}
      help={spec.help}
      {value}
      min={spec.least}
      max={spec.most}
      usual={spec.default}
      show={spec.reads === "degree" ? shown : undefined}
      read={spec.reads === "degree"
        ? (text) => session.notes.degreeOf(text, view.degrees)
        : undefined}
      width={mixed ? "7ch" : spec.reads === "degree" ? "5ch" : "4ch"}
      many={mixed
        ? {
            text: `${shown(Math.min(...values))}–${shown(Math.max(...values))}`,
            shift: (by) => view.write(name, view.raised(name, steps, by)),
          }
        : undefined}
      commit={set}
    />
  {/if}
</FieldRow>
