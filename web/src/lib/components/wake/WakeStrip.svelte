<!-- @component The wake: a thin roll of the last bars of everything that sounded, and a way to keep them. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { Wake, wakeBars } from "../../state/wake.svelte";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  const wake = new Wake(session);
  const height = 30;

  let width = $state(0);
  let bars = $state(8);

  const scale = $derived(width / (wakeBars * session.bar));
  /** The wake ends at the right; what there is of it begins as far from there as it lasts. */
  const left = $derived(width - (wake.view?.end ?? 0) * scale);
  const notes = $derived.by(() => {
    const notes = wake.view?.notes ?? [];
    const keys = notes.map((note) => note.key);
    const [lowest, highest] = [Math.min(...keys), Math.max(...keys)];
    return notes.map(({ start, end, key }) => ({
      x: left + start * scale,
      y: 4 + ((highest - key) / Math.max(1, highest - lowest)) * (height - 10),
      width: Math.max(1.5, (end - start) * scale),
    }));
  });
  const kept = $derived(Math.min(bars, wake.bars) * session.bar * scale);

  function keep(): void {
    void session.keepWake(bars);
  }
</script>

<section
  class="border-line flex h-[38px] items-center gap-3 border-t px-3"
  aria-label="Wake"
  data-help="The wake: the last {wakeBars} whole bars of all that sounded. Nothing that was heard is lost."
>
  <span class="caption w-[74px]">
    wake {wake.view ? `from ${wake.view.bar + 1}` : ""}
  </span>
  <div class="min-w-0 flex-1" bind:clientWidth={width}>
    <svg {width} {height} class="block" role="img" aria-label="{notes.length} notes in the wake">
      <rect x={width - kept} y="0" width={kept} {height} fill="var(--water)" opacity="0.6" />
      {#each { length: wakeBars + 1 }, i (i)}
        <line
          x1={(i * width) / wakeBars}
          x2={(i * width) / wakeBars}
          y1={height - 6}
          y2={height}
          stroke="var(--line-strong)"
        />
      {/each}
      {#each notes as note, i (i)}
        <rect x={note.x} y={note.y} width={note.width} height="2.4" fill="var(--ink)" />
      {/each}
    </svg>
  </div>
  <span class="flex items-center gap-1">
    <button
      class="control"
      disabled={!wake.view}
      data-help="Keep the last whole bars that sounded as a take, whether or not they were recorded."
      onclick={keep}>keep last</button
    >
    <NumberField
      label="Bars of the wake to keep"
      help="How many whole bars to keep."
      value={bars}
      min={1}
      max={4096}
      width="4ch"
      commit={async (value) => {
        bars = value;
      }}
    />
    <span class="caption">bars</span>
  </span>
</section>
