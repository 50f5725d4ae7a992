<!-- @component What a hand does to time: the tempo goes to another over bars, and the bars move to where they are wanted. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  const stage = session.stage;
  let rampBars = $state(4);
  /** Over how many beats the nearest bar line moves to now. */
  let spread = $state(1);
  const moves = [
    { words: "5 ms later", key: "[", by: -5, help: "All plays 5 ms later from now on." },
    { words: "5 ms earlier", key: "]", by: 5, help: "All plays 5 ms earlier from now on." },
  ];
</script>

<div
  class="border-line flex flex-wrap items-center gap-1 border-t px-3 py-1.5"
  role="group"
  aria-label="Tempo and phase"
>
  <label class="caption flex items-center gap-1"
    >ramp
    <NumberField
      label="Ramp to"
      help="Go to another tempo, step by step with each beat, over the bars beside it from the next one on."
      value={stage.value({ name: "tempo" }, session.project.tempo) / 1000}
      {...scaled(bounds.Project.tempo, 1000)}
      decimals={1}
      commit={(bpm) => stage.ramp(Math.round(bpm * 1000), rampBars)}
      width="56px"
    /> in
    <NumberField
      label="Ramp bars"
      help="Over how many bars the tempo goes to another."
      value={rampBars}
      {...bounds.RampRequest.bars}
      commit={async (bars) => void (rampBars = bars)}
      width="36px"
    />
    bars
  </label>
  <span class="w-3 shrink-0"></span>
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    data-help="The nearest bar line comes now, by a tempo that is faster or slower for as many beats as beside it. D"
    onclick={() => session.song.oneIsNow(spread)}
    >one is now<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">D</span></button
  >
  <label class="caption flex items-center gap-1"
    >over
    <select
      class="control h-[44px]! px-1!"
      aria-label="Over how many beats"
      data-help="Over how many beats the bar line moves; over 0 it is as fast as can be, at double or half the tempo."
      bind:value={spread}
    >
      {#each [0, 1, 4] as beats (beats)}<option value={beats}>{beats}</option>{/each}
    </select> beats
  </label>
  <span class="w-3 shrink-0"></span>
  {#each moves as { words, key, by, help } (by)}
    <button
      class="control h-[44px]! px-1.5! text-[12px]!"
      data-help="{help} {key}"
      onclick={() => session.song.move(by)}
      >{words}<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">{key}</span></button
    >
  {/each}
</div>
