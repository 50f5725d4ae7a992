<!-- @component Where a take that is heard is by now; the roll turns its pages with it. -->
<script lang="ts">
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";

  let { scale }: { scale: RollScale } = $props();

  const desk = getTakeDesk();
  let line = $state<SVGLineElement>();

  $effect(() => {
    if (!desk.hearing.playing) return;
    let frame = 0;
    const move = (now: number) => {
      frame = requestAnimationFrame(move);
      const tick = desk.hearing.tickAt(now);
      if (tick === undefined || !line) return;
      line.setAttribute("transform", `translate(${scale.x(tick)},0)`);
      if (tick >= scale.to) desk.scroll(desk.bars);
    };
    frame = requestAnimationFrame(move);
    return () => cancelAnimationFrame(frame);
  });
</script>

{#if desk.hearing.playing}
  <line bind:this={line} y2={scale.height} stroke="var(--signal)" stroke-width="2" />
{/if}
