<!-- @component The wake: a thin roll of everything that sounded, and a way to keep any stretch of it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { oneFinger } from "../../oneFinger";
  import { getSession } from "../../state/context";
  import { Wake, wakeBars } from "../../state/wake.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import NoteLines from "../marks/NoteLines.svelte";

  const session = getSession();
  const wake = new Wake(session);
  const height = 30;

  let width = $state(0);
  let bars = $state(8);
  let began = $state<number>();

  const to = $derived(wake.view?.to ?? 0);
  const length = $derived(to - (wake.view?.from ?? 0));
  const scale = $derived(width / Math.max(length, wake.lines.start(wakeBars)));
  /** The wake ends at the right; what there is of it begins as far from there as it lasts. */
  const x = (tick: number) => width - (to - tick) * scale;
  const notes = $derived(wake.view?.notes ?? []);
  const from = $derived(wake.view?.from ?? 0);
  const last = $derived(wake.lines.tick(wake.bars - Math.min(bars, wake.bars)));
  const kept = $derived(wake.piece ?? { from: from + last, to });
  const pieceBars = $derived(
    wake.piece &&
      wake.lines.position(wake.piece.to - from) - wake.lines.position(wake.piece.from - from),
  );
  const lines = $derived(wake.lines.beats(0, Math.max(1, length)).filter(({ beat }) => beat === 0));

  async function keep(): Promise<void> {
    await session.shelf.keepWake(wake.request(bars));
    wake.letGo();
  }

  function tickOf(event: PointerEvent & { currentTarget: SVGElement }): number {
    const at = event.clientX - event.currentTarget.getBoundingClientRect().x;
    return to - (width - at) / scale;
  }
</script>

<section
  data-area
  class="border-line flex h-[38px] items-center gap-2 border-t px-3"
  aria-label="Wake"
  data-help="The wake has everything that sounded. Drag over a stretch to select it; a press clears the selection."
>
  <span class="caption w-[98px] whitespace-nowrap">
    wake {wake.view ? `from bar ${wake.view.bar}` : ""}
  </span>
  <button
    class="control h-[22px]!"
    aria-label="Earlier in the wake"
    disabled={!wake.hasEarlier}
    data-help="Go back in the wake, over stops and starts too."
    onclick={() => wake.earlier()}>‹</button
  >
  <div class="min-w-0 flex-1" bind:clientWidth={width}>
    <svg
      {width}
      {height}
      class="block cursor-col-resize touch-none select-none"
      role="img"
      aria-label="{notes.length} notes in the wake"
      {@attach oneFinger}
      onpointerdown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        began = tickOf(event);
        wake.select(began, began);
      }}
      onpointermove={(event) => began !== undefined && wake.select(began, tickOf(event))}
      onpointerup={() => (began = undefined)}
      onpointercancel={() => (began = undefined)}
    >
      <rect
        x={x(kept.from)}
        y="0"
        width={Math.max(0, (kept.to - kept.from) * scale)}
        {height}
        fill={wake.piece ? "var(--lamp-soft)" : "var(--water)"}
        opacity="0.6"
      />
      {#each lines as { tick } (tick)}
        <line
          x1={x(from + tick)}
          x2={x(from + tick)}
          y1={height - 6}
          y2={height}
          stroke="var(--line-strong)"
        />
      {/each}
      <NoteLines
        {notes}
        x={(tick) => x(from + tick)}
        height={height - 7.6}
        thickness={2.4}
        minWidth={1.5}
      />
    </svg>
  </div>
  <button
    class="control h-[22px]!"
    aria-label="Later in the wake"
    disabled={wake.isNow}
    data-help="On to where you came from, and to what sounds now."
    onclick={() => wake.later()}>›</button
  >
  <span class="flex items-center gap-1">
    <button
      class="control"
      disabled={!wake.view}
      data-help="Keep what is marked as a take, whether or not it was recorded."
      onclick={keep}>{wake.piece ? "keep this" : "keep last"}</button
    >
    {#if wake.piece}
      <span class="caption w-[70px]">{Number(pieceBars?.toFixed(2))} bars</span>
    {:else}
      <NumberField
        label="Bars of the wake to keep"
        help="How many whole bars to keep."
        value={bars}
        {...bounds.KeepRequest.bars}
        width="4ch"
        commit={async (value) => {
          bars = value;
        }}
      />
      <span class="caption">bars</span>
    {/if}
  </span>
</section>
