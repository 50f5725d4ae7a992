<!-- @component A macro: how far it is moved, and what it moves. Dragged, or moved by arrow keys. -->
<script lang="ts">
  import type { Macro } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";

  let { macro, perform }: { macro: Macro; perform: Perform } = $props();

  const session = getSession();
  const full = 1000;
  const step = 10;
  /** Where it is dragged to, while it is. */
  let dragged = $state<number>();
  const position = $derived(dragged ?? perform.movers.position(macro));
  const fader = $derived(session.stage.faderOf({ name: "macro", id: macro.id }));
  const changed = $derived(session.stage.isChanged({ name: "macro", id: macro.id }));
  const moves = $derived(
    macro.moves.map(({ control }) => perform.movers.words(control)).join(", ") ||
      "moves nothing yet",
  );
  const share = (value: number) => `${(value / full) * 100}%`;

  function to(event: PointerEvent & { currentTarget: HTMLElement }): void {
    const box = event.currentTarget.getBoundingClientRect();
    const value = Math.round(((event.clientX - box.left) / box.width) * full);
    dragged = Math.max(0, Math.min(full, value));
    void perform.movers.move(macro, dragged);
  }

  function key(event: KeyboardEvent): void {
    const keys: Record<string, number> = {
      ArrowLeft: position - step,
      ArrowDown: position - step,
      ArrowRight: position + step,
      ArrowUp: position + step,
      PageDown: position - 10 * step,
      PageUp: position + 10 * step,
      Home: 0,
      End: full,
    };
    if (event.key === "Delete") return void perform.movers.putBack(macro);
    const value = keys[event.key];
    if (value === undefined) return;
    event.preventDefault();
    event.stopPropagation(); // PgUp and PgDn turn to another track elsewhere
    void perform.movers.move(macro, value);
  }
</script>

<div
  class={[
    "border-line bg-paper relative h-[44px] w-[190px] shrink-0 cursor-ew-resize touch-none overflow-hidden rounded-[3px] border",
    changed && "border-ink",
  ]}
  role="slider"
  tabindex="0"
  aria-label="Macro {macro.name}"
  aria-valuemin="0"
  aria-valuemax="100"
  aria-valuenow={position / 10}
  aria-valuetext="{(position / 10).toFixed(1)} %"
  data-help="Macro “{macro.name}” moves {moves}. Drag it, or use the arrow keys; Delete puts it back to what is written.{fader ===
  undefined
    ? ''
    : ' The dashed line is where its fader stands: move that there to take it over.'}"
  {@attach oneFinger}
  onpointerdown={(event) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    to(event);
  }}
  onpointermove={(event) => dragged !== undefined && to(event)}
  onpointerup={() => (dragged = undefined)}
  onpointercancel={() => (dragged = undefined)}
  onkeydown={key}
>
  <div class="bg-water absolute inset-y-0 left-0" style:width={share(position)}></div>
  <div
    class="bg-ink absolute top-0 h-[5px] w-[3px]"
    style:left="calc({share(position)} - 1px)"
  ></div>
  <div
    class="bg-ink absolute bottom-0 h-[5px] w-[3px]"
    style:left="calc({share(position)} - 1px)"
  ></div>
  <div
    class="bg-ink-3 absolute bottom-0 h-[7px] w-px"
    style:left={share(macro.rest ?? 0)}
    title="rest"
  ></div>
  {#if fader !== undefined}
    <div
      class="border-signal absolute inset-y-0 border-l-2 border-dashed"
      style:left={share(fader)}
      data-fader={fader}
    ></div>
  {/if}
  <div class="pointer-events-none absolute inset-0 px-2 py-1 leading-[17px]">
    <span class="flex justify-between gap-1 text-[12px]"
      ><b class="truncate font-semibold">{macro.name}</b>
      <span class="font-mono">{(position / 10).toFixed(1).padStart(5, "\u2007")} %</span></span
    >
    <span class="text-ink-2 block truncate text-[11px]">{moves}</span>
  </div>
</div>
