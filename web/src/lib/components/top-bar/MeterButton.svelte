<!-- @component The meter and the swing of the project, and the way to change them. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  let { openTime }: { openTime: () => void } = $props();

  const session = getSession();
  const meter = $derived(session.project.meter);
  const swing = $derived((session.project.swing / 10).toFixed(1));
</script>

<div>
  <div class="caption whitespace-nowrap">meter, swing</div>
  <button
    class="control whitespace-nowrap"
    aria-label="{meter.beats}/{meter.unit} · {swing} %: meter and swing"
    data-help="Meter and swing: press to change them."
    onclick={openTime}>{meter.beats}/{meter.unit} · {swing} %</button
  >
</div>
