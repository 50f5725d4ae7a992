<!-- @component How long a step lasts, and what becomes of each of its step lengths. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { StepDetail } from "../../api/types";
  import { lengthsOf, withStretch } from "../../chart/stretch";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    detail: StepDetail;
    set: (made: (now: StepDetail) => Partial<StepDetail>) => Promise<void>;
  }
  let { detail, set }: Props = $props();

  const lengths = $derived(lengthsOf(detail));
  const words = ["silent", "played", "tied"];
  const marks = ["·", "●", "–"];

  /** The lengths where one has become the next thing that it can, which for the first is not tied; undefined if none were played then. */
  function turned(detail: StepDetail, at: number): string | undefined {
    const next = lengthsOf(detail);
    next[at] = ((next[at] ?? 0) + 1) % (at === 0 ? 2 : 3);
    return next.includes(1) ? next.join("") : undefined;
  }

  function turn(at: number): void {
    if (turned(detail, at)) void set((now) => ({ lengths: turned(now, at) ?? now.lengths ?? "" }));
  }
</script>

<NumberRow
  label="stretch"
  help="How many step lengths the step lasts, 1 to 16."
  value={detail.stretch || 1}
  {...bounds.StepDetail.stretch}
  min={1}
  usual={1}
  commit={(stretch) => set((now) => withStretch(now, stretch))}
/>
{#if lengths.length > 1}
  <FieldRow
    label="lengths"
    help="What becomes of each step length: press to have it played, tied or silent."
  >
    <span class="flex flex-wrap justify-end gap-0.5" role="group" aria-label="Step lengths">
      {#each lengths as length, at (at)}
        <button
          class="control w-[22px] px-0!"
          aria-label="Length {at + 1}: {words[length]}"
          data-help="Length {at + 1} is {words[length]}; press for the next: silent, played, tied."
          onclick={() => turn(at)}>{marks[length]}</button
        >
      {/each}
    </span>
  </FieldRow>
{/if}
