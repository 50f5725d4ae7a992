<!-- @component The line of the present over all lanes, while the chart follows. It moves without redrawing. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";

  const session = getSession();
  const view = getChartView();

  let line = $state<HTMLDivElement>();

  $effect(() => {
    if (!session.transport.playing) return;
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const tick = session.transport.tickAt(now);
      if (tick === undefined) return;
      if (view.following) view.turnTo(tick);
      if (line)
        line.style.transform = `translateX(${((tick - view.from) / (view.to - view.from)) * view.width}px)`;
    });
    return () => cancelAnimationFrame(request);
  });
</script>

{#if view.following && session.transport.playing}
  <div
    class="pointer-events-none absolute inset-y-0 right-0 overflow-hidden"
    style:width="{view.width}px"
  >
    <div
      class="bg-signal absolute inset-y-0 left-[-1px] w-[2px]"
      bind:this={line}
      data-playhead
    ></div>
  </div>
{/if}
