<!-- @component The first meter and the swing of the project, and the way to change them. -->
<script lang="ts">
  import { meterText } from "../../chart/meter";
  import { getSession } from "../../state/context";

  let { openTime }: { openTime: () => void } = $props();

  const session = getSession();
  const changes = $derived(session.project.meterChanges?.length ?? 0);
  const meter = $derived(`${meterText(session.project.meter)}${changes > 0 ? " …" : ""}`);
  const swing = $derived((session.project.swing / 10).toFixed(1));
</script>

<div>
  <div class="caption whitespace-nowrap">meter, swing</div>
  <button
    class="control whitespace-nowrap"
    aria-label="{meter} · {swing} %: meter and swing"
    data-help="Meters, tempo changes and swing: press to change them."
    onclick={openTime}>{meter} · {swing} %</button
  >
</div>
