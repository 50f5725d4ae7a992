<!-- @component The bars of a roll; dragging over them selects a stretch. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";

  let { roll, scale }: { roll: Roll; scale: RollScale } = $props();

  const desk = getTakeDesk();
  const height = 26;
  let began = $state<number>();

  const beats = $derived(desk.barLines.beats(scale.from, scale.to));
  const barOf = (tick: number) => desk.barLines.position(tick) + 1;
  const markers = $derived(
    roll.markers.filter(({ tick }) => tick >= scale.from && tick < scale.to),
  );

  function tickOf(event: PointerEvent & { currentTarget: SVGElement }): number {
    return scale.tick(event.clientX - event.currentTarget.getBoundingClientRect().x);
  }

  function onkeydown(event: KeyboardEvent): void {
    const by = { ArrowLeft: -desk.gridTicks, ArrowRight: desk.gridTicks }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const { from, to } = desk.stretch ?? { from: desk.from, to: desk.from };
    if (event.shiftKey) desk.selectStretch(from, Math.max(from, to + by));
    else desk.selectStretch(from + by, to + by || desk.gridTicks);
  }
</script>

<svg
  width={scale.width}
  {height}
  class="block cursor-col-resize touch-none select-none"
  role="slider"
  tabindex="0"
  aria-label="Stretch of the take"
  aria-valuenow={barOf(desk.stretch?.from ?? 0)}
  aria-valuetext={desk.stretch
    ? `bars ${barOf(desk.stretch.from)} to ${barOf(desk.stretch.to)}`
    : "none selected"}
  data-help="Drag to select bars to hear, correct and export, with Alt a stretch on the grid; a press clears the selection. Shift+arrows make it longer, arrows move it."
  {@attach oneFinger}
  onpointerdown={(event) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    began = tickOf(event);
    desk.selectStretch(began, began);
  }}
  onpointermove={(event) =>
    began !== undefined && desk.selectStretch(began, tickOf(event), !event.altKey)}
  onpointerup={() => (began = undefined)}
  onpointercancel={() => (began = undefined)}
  {onkeydown}
>
  {#if desk.stretch}
    <rect
      x={scale.x(desk.stretch.from)}
      width={scale.x(desk.stretch.to) - scale.x(desk.stretch.from)}
      {height}
      fill="var(--lamp-soft)"
    />
  {/if}
  {#each beats as { tick, bar, beat } (tick)}
    <line
      x1={scale.x(tick)}
      x2={scale.x(tick)}
      y1={beat === 0 ? 4 : 18}
      y2={height}
      stroke="var(--line-strong)"
    />
    {#if beat === 0 && (desk.bars < 32 || bar % 2 === 0)}
      <text x={scale.x(tick) + 4} y="15" font-size="13" font-weight="600" fill="var(--ink)"
        >{bar + 1}</text
      >
    {/if}
  {/each}
  {#each markers as { tick, text }, i (i)}
    <path d="M{scale.x(tick)} {height}v-8l7 4z" fill="var(--signal)"><title>{text}</title></path>
  {/each}
</svg>
