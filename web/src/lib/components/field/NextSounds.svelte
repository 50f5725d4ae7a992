<!-- @component What each traveller comes to next, in words: the note, after how many steps, and the way that it takes at a fork. -->
<script lang="ts">
  import { counted } from "../../counted";
  import { directionMarks } from "../../field/cells";
  import { comingOf } from "../../field/moments";
  import { getChartView, getSession } from "../../state/context";
  import type { Moments } from "../../state/moments.svelte";

  let { moments }: { moments: Moments } = $props();

  const session = getSession();
  const field = getChartView().field;
  let tick = $state(0);

  $effect(() => {
    tick = moments.from;
    if (!session.transport.playing) return;
    let request = requestAnimationFrame(function frame(now) {
      request = requestAnimationFrame(frame);
      const at = session.transport.tickAt(now) ?? 0;
      const moment = moments.list.findLast((one) => one.tick <= at);
      if (moment) tick = moment.tick;
    });
    return () => cancelAnimationFrame(request);
  });

  function words(id: number): string {
    const coming = comingOf(moments.list, tick, id, field.field);
    if (!coming) return "waits";
    const { sounds, fork } = coming;
    return [
      sounds
        ? `${moments.name(sounds) || "note"} in ${counted(sounds.steps, "step")}`
        : "no note soon",
      fork ? `fork ${directionMarks[fork.direction]} ${fork.percent} %` : "",
    ]
      .filter(Boolean)
      .join(", ");
  }
</script>

<dl
  class="border-line grid max-h-[84px] grid-cols-[auto_minmax(0,1fr)] gap-x-2 overflow-y-auto border-t px-2 py-1 text-[12px]"
  aria-label="What sounds next"
  data-help="What each traveller comes to next: the note, after how many of its steps, and at a fork the way that chance has decided on, with its odds."
>
  {#each field.travellers as { id } (id)}
    <dt class="text-ink-2 text-right font-mono">{id}</dt>
    <dd class="truncate">{words(id)}</dd>
  {/each}
</dl>
