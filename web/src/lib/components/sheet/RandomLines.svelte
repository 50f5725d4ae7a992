<!-- @component A table of rates and odds that makes small tracks of drawn notes over the notes of this one. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { RandomLine, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import NumberField from "../fields/NumberField.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const most = 8;
  let lines = $state.raw<RandomLine[]>([
    { rate: "1/8", odds: 40, octave: 0 },
    { rate: "1/16", odds: 20, octave: 1 },
  ]);

  function change(i: number, to: Partial<RandomLine> | undefined): Promise<void> {
    lines = changed(lines, i, to);
    return Promise.resolve();
  }
</script>

{#each lines as line, i (i)}
  <div class="flex flex-wrap items-center gap-1 py-0.5" role="group" aria-label="Line {i + 1}">
    <select
      class="control min-w-[62px] px-1!"
      aria-label="Rate of line {i + 1}"
      value={line.rate}
      onchange={(event) => change(i, { rate: event.currentTarget.value })}
    >
      {#each session.lists.rates as { name } (name)}<option value={name}>{name}</option>{/each}
    </select>
    <NumberField
      label="Odds of line {i + 1}"
      value={line.odds}
      {...bounds.RandomLine.odds}
      commit={(odds) => change(i, { odds })}
    />
    <span class="text-ink-2">%</span>
    <NumberField
      label="Octave of line {i + 1}"
      value={line.octave ?? 0}
      {...bounds.RandomLine.octave}
      commit={(octave) => change(i, { octave })}
    />
    <span class="text-ink-2">oct</span>
    <button class="control" aria-label="Remove line {i + 1}" onclick={() => change(i, undefined)}
      >×</button
    >
  </div>
{/each}
<div class="flex gap-1.5 py-0.5">
  <button
    class="control"
    disabled={lines.length >= most}
    onclick={() => (lines = [...lines, { rate: "1/4", odds: 50, octave: 0 }])}>+ line</button
  >
  <button
    class="control flex-1"
    data-help="A track for each line, which plays drawn notes of this track's chord, or of what this one plays, at its rate and as often as its odds say."
    disabled={lines.length === 0}
    onclick={() => session.edit({ addLines: { track: track.id, lines } })}>make tracks</button
  >
</div>
