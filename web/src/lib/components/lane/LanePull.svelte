<!-- @component The lower edge of a lane, which is pulled to make the lane higher or lower; a double click gives it its share. -->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { oneFinger } from "../../oneFinger";
  import { getChartView } from "../../state/context";

  let { spec, height }: { spec: LaneSpec; height: number } = $props();

  const { heights } = getChartView();
  const step = 12;
  let pull: { y: number; height: number } | undefined;

  function onkeydown(event: KeyboardEvent): void {
    const by = { ArrowUp: -step, ArrowDown: step }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    heights.pull(spec.name, height + by);
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
  class="hover:bg-line-strong absolute inset-x-0 -bottom-[2px] z-[5] h-[5px] cursor-ns-resize touch-none"
  role="separator"
  aria-orientation="horizontal"
  aria-label="Height of {spec.label}"
  aria-valuenow={Math.round(height)}
  aria-valuemin="26"
  aria-valuemax="600"
  tabindex="-1"
  data-help="Pull the edge to make the lane higher or lower; a double click gives it its share of the room."
  {@attach oneFinger}
  onpointerdown={(event) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    pull = { y: event.clientY, height };
  }}
  onpointermove={(event) => pull && heights.pull(spec.name, pull.height + event.clientY - pull.y)}
  onpointerup={() => (pull = undefined)}
  onpointercancel={() => (pull = undefined)}
  ondblclick={() => heights.release(spec.name)}
  {onkeydown}
></div>
