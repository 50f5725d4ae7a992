<!-- @component What the fields that play are given by name: values, arrows, travellers and rules. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { FieldLayers } from "../../state/fieldLayers";
  import LayerButtons from "../field/LayerButtons.svelte";

  const session = getSession();
  const layers = new FieldLayers(session);
  const kinds = $derived(layers.kinds.filter(({ kind }) => layers.of(kind).length > 0));
  const fields = $derived(
    session.project.tracks.flatMap((track) => {
      const pattern = track.patterns.find(({ id }) => id === session.stage.playing(track));
      const part = pattern?.parts[0];
      if (!pattern || !part?.field) return [];
      const at = { track: track.id, pattern: pattern.id, part: part.id };
      return [{ name: track.name, at, written: part.field }];
    }),
  );
</script>

<div class="border-line flex flex-col gap-1 border-t px-3 py-1.5" role="group" aria-label="Fields">
  {#each kinds.length > 0 ? fields : [] as { name, at, written } (at.track)}
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span class="w-[120px] truncate font-semibold">{name}</span>
      {#each kinds as { kind } (kind)}
        <span class="flex items-center gap-1"
          ><span class="caption">{kind}</span>
          <LayerButtons {kind} {at} {written} track={name} size="h-[44px]! min-w-[44px]!" /></span
        >
      {/each}
    </div>
  {:else}
    <span class="caption py-2"
      >There is nothing to give a field yet: on Write, keep its values, arrows, travellers or rules
      by a name, on the page “field”.</span
    >
  {/each}
</div>
