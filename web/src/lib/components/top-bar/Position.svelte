<!-- @component Where playing is: bar, beat and 16th, each counted from 1. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const session = getSession();
  let shown = $state("");

  $effect(() => {
    if (!session.transport.playing) {
      shown = `${String(session.song.bar).padStart(3, "0")}.1.1`;
      return;
    }
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const tick = session.transport.tickAt(now);
      if (tick === undefined) return;
      const at = session.bars.beatAt(tick);
      const sixteenth = Math.floor((tick - at.tick) / (session.lists.ticksPerQuarter / 4)) + 1;
      shown = `${String(at.bar + 1).padStart(3, "0")}.${at.beat + 1}.${sixteenth}`;
    });
    return () => cancelAnimationFrame(request);
  });
</script>

<span
  class="min-w-[84px] px-1 font-mono text-[18px] max-[1400px]:min-w-[74px] max-[1400px]:text-[16px] max-[1150px]:min-w-[68px] max-[1150px]:text-[15px]"
  data-help="Position: bar, beat and 16th."
  data-position>{shown}</span
>
