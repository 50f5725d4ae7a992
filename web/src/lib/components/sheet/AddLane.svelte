<!-- @component The lanes that the part does not have yet, to add one. -->
<script lang="ts">
  import { openByArrows } from "../../input/openByArrows";
  import type { LaneName } from "../../api/types";
  import { getSession } from "../../state/context";

  const session = getSession();
  const missing = $derived(session.fittingLanes.filter(({ name }) => !session.part.lanes[name]));

  function add(select: HTMLSelectElement): void {
    const lane = select.value as LaneName;
    select.value = "";
    void session.edit({ setLane: { ...session.address, lane, linked: true } });
  }
</script>

{#if missing.length > 0}
  <select
    class="control mt-2 w-full"
    aria-label="Add a lane"
    {@attach openByArrows}
    data-help="Add a lane to the track. Undo takes it away again."
    value=""
    onchange={(event) => add(event.currentTarget)}
  >
    <option value="" disabled>+ lane</option>
    {#each missing as { name, label, help } (name)}<option value={name} title={help}>{label}</option
      >{/each}
  </select>
{/if}
