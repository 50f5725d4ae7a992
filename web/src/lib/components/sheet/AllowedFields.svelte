<!-- @component Which notes of the scale a step can play, in any octave; those that are left out go to the nearest of the others. -->
<script lang="ts">
  import { getChartView } from "../../state/context";

  interface Props {
    /** Their degrees, from 0; none is all. */
    allowed: readonly number[];
    /** Whether the selected steps have different ones. */
    mixed: boolean;
    set: (allowed: number[]) => Promise<void>;
  }
  let { allowed, mixed, set }: Props = $props();

  const view = getChartView();
  const notes = $derived(
    view.degrees
      .filter(({ degree }) => degree >= 0 && degree < view.degreesPerOctave)
      .map(({ degree, name }) => ({ degree, name: name.replace(/-?\d+$/, "") })),
  );
  const all = $derived(notes.map(({ degree }) => degree));
  const now = $derived(allowed.length > 0 ? allowed : all);

  function toggle(degree: number): Promise<void> {
    const others = now.filter((other) => other !== degree);
    const next = now.includes(degree) ? others : [...others, degree].sort((a, b) => a - b);
    return set(next.length === 0 || all.every((degree) => next.includes(degree)) ? [] : next);
  }
</script>

<div
  class="flex flex-wrap items-center gap-1 py-1"
  role="group"
  aria-label="Allowed notes of the step"
>
  <span class="text-ink-2 w-full text-[12px]">allowed notes{mixed ? " (not all alike)" : ""}</span>
  {#each notes as { degree, name } (degree)}
    <button
      class="control px-1.5!"
      aria-label="Allow {name}"
      aria-pressed={now.includes(degree)}
      data-help="Whether the step can play {name}. What its spread leads to goes to the nearest note that is allowed."
      onclick={() => toggle(degree)}>{name}</button
    >
  {/each}
</div>
