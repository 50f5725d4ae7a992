<!-- @component What was performed in a take, as flags under its ruler: moved by dragging or by arrows, left out by Delete. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";

  let { roll, scale }: { roll: Roll; scale: RollScale } = $props();

  const desk = getTakeDesk();
  const actions = desk.actions;
  const height = 18;
  let dragged = $state<number>();
  let svg = $state<SVGSVGElement>();

  const shown = $derived(actions.all.filter(({ tick }) => tick >= scale.from && tick < scale.to));

  /** A tick on the grid, unless it is wanted exactly. */
  function tickOf(event: PointerEvent): number {
    const tick = scale.tick(event.clientX - (svg?.getBoundingClientRect().x ?? 0));
    return event.altKey ? tick : Math.round(tick / desk.gridTicks) * desk.gridTicks;
  }

  function onkeydown(event: KeyboardEvent, entry: number, tick: number): void {
    const by = { ArrowLeft: -desk.gridTicks, ArrowRight: desk.gridTicks }[event.key];
    if (by !== undefined) actions.move(entry, tick + by, roll.end);
    else if (event.key === "Delete" || event.key === "Backspace") actions.remove(entry);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<svg
  bind:this={svg}
  width={scale.width}
  {height}
  class="block touch-none select-none"
  role="group"
  aria-label="What was performed"
>
  {#each shown as { entry, tick, words } (entry)}
    {@const bar = (desk.barLines.position(tick) + 1).toFixed(2)}
    <path
      d="M{scale.x(tick) + 0.5} {height}V2h12l-4 4.5l4 4.5h-12"
      class="cursor-ew-resize"
      fill={actions.selected === entry ? "var(--lamp)" : "var(--raised)"}
      stroke="var(--signal)"
      stroke-dasharray={actions.isMoved(entry) ? "3 2" : undefined}
      role="slider"
      tabindex="0"
      aria-label={words}
      aria-valuenow={tick}
      aria-valuetext="bar {bar}"
      data-help="{words}, from bar {bar} on. Drag it or use arrows to move it, with Alt off the grid; Delete leaves it out. “Play again” makes another take of it so."
      onfocus={() => (actions.selected = entry)}
      {@attach oneFinger}
      onpointerdown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragged = entry;
        actions.selected = entry;
      }}
      onpointermove={(event) => dragged === entry && actions.move(entry, tickOf(event), roll.end)}
      onpointerup={() => (dragged = undefined)}
      onpointercancel={() => (dragged = undefined)}
      onkeydown={(event) => onkeydown(event, entry, tick)}
    />
  {/each}
</svg>
