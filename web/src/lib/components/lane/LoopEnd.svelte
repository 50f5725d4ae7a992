<!--
@component
The end of a lane's loop, which can be pulled to make the loop longer or shorter. By key the length
field does the same, so readers of the page's structure need not know of it.
-->
<script lang="ts">
  import type { Lane, LaneName } from "../../api/types";
  import type { Cell } from "../../chart/geometry";
  import { oneFinger } from "../../oneFinger";
  import { getSession } from "../../state/context";

  interface Props {
    name: LaneName;
    index: number;
    lane: Lane;
    cells: Cell[];
    width: number;
    height: number;
  }
  let { name, index, lane, cells, width, height }: Props = $props();

  const session = getSession();
  let pulled = $state<number>();

  const stepWidth = $derived(cells[0]?.width ?? 1);
  const x = $derived((pulled ?? lane.length) * stepWidth);

  function onpointerdown(event: PointerEvent & { currentTarget: SVGGElement }): void {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    pulled = lane.length;
  }

  function onpointermove(event: PointerEvent & { currentTarget: SVGGElement }): void {
    if (pulled === undefined) return;
    event.stopPropagation();
    const left = event.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0;
    pulled = Math.min(64 - lane.first, Math.max(1, Math.round((event.clientX - left) / stepWidth)));
  }

  async function onpointerup(event: PointerEvent): Promise<void> {
    if (pulled === undefined) return;
    event.stopPropagation();
    if (pulled !== lane.length) {
      const at = session.addressOf(session.parts[index] ?? session.part);
      await session.edit({ setLane: { ...at, lane: name, length: pulled } });
    }
    pulled = undefined;
  }
</script>

{#if x <= width}
  <g
    class="cursor-ew-resize"
    data-help="Pull the loop's end to change its length. What lies beyond is kept."
    {@attach oneFinger}
    {onpointerdown}
    {onpointermove}
    {onpointerup}
    onpointercancel={() => (pulled = undefined)}
    role="presentation"
  >
    <rect x={x - 5} y="0" width="10" {height} fill="transparent" />
    <line
      x1={x - 0.5}
      x2={x - 0.5}
      y1="0"
      y2={height}
      stroke="var(--ink-2)"
      stroke-dasharray="2 3"
    />
    <path d="M{x - 0.5} 1v11h-7v-11z" fill="var(--ink-2)" />
    <path d="M{x - 5.5} 4v5m2.5-5v5" stroke="var(--paper)" />
    {#if pulled !== undefined}
      <text x={x - 10} y="24" text-anchor="end" font-size="12" font-weight="600" fill="var(--ink)"
        >{pulled} steps</text
      >
    {/if}
  </g>
{/if}
