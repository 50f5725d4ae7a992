<!-- @component The meter that plays, or the first one, and the swing of the project, and the way to change them. -->
<script lang="ts">
  import { meterText } from "../../chart/meter";
  import { getSession } from "../../state/context";

  let { openTime }: { openTime: () => void } = $props();

  const session = getSession();
  /** The bar that plays, while one does. */
  let bar = $state<number>();
  const changes = $derived(session.project.meterChanges?.length ?? 0);
  const now = $derived(bar === undefined ? session.project.meter : session.bars.meter(bar));
  const meter = $derived(`${meterText(now)}${changes > 0 ? " …" : ""}`);
  const swing = $derived((session.project.swing / 10).toFixed(1));

  $effect(() => {
    if (!session.transport.playing) return;
    const watch = setInterval(() => {
      const tick = session.transport.tickAt(performance.now());
      bar = tick === undefined ? undefined : session.bars.at(tick);
    }, 100);
    return () => {
      clearInterval(watch);
      bar = undefined;
    };
  });
</script>

<div>
  <div class="caption whitespace-nowrap">meter, swing</div>
  <button
    class="control whitespace-nowrap"
    aria-label="{meter} · {swing} %: meter and swing"
    data-help="The meter that plays, and the swing: press to change the meters, tempos and swing of the project."
    onclick={openTime}>{meter} · {swing} %</button
  >
</div>
