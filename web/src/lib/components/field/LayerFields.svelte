<!-- @component What of a field is kept by name, and given to it again while it plays. -->
<script lang="ts">
  import type { FieldLayer } from "../../api/types";
  import { getSession } from "../../state/context";
  import { FieldLayers } from "../../state/fieldLayers";
  import LayerButtons from "./LayerButtons.svelte";

  const session = getSession();
  const layers = new FieldLayers(session);
  const at = $derived(session.address);
  const written = $derived(session.part.field);
  let kind = $state<FieldLayer["kind"]>("values");
  let name = $state("");
  /** The layer that the field has of the kind, which need not be kept again. */
  const has = $derived(layers.of(kind).find(({ id }) => id === layers.recalled(kind, at, written)));

  function keep(): Promise<void> {
    const keepLayer = { ...at, kind, name: name.trim() };
    name = "";
    return session.edit({ keepLayer });
  }
</script>

{#each layers.kinds as { kind: of, help } (of)}
  {#if layers.of(of).length > 0}
    <div class="border-line border-b py-1" data-help={help}>
      <div class="pb-0.5">{of}</div>
      <LayerButtons
        kind={of}
        {at}
        {written}
        remove={(layer) => session.edit({ removeLayer: { layer } })}
      />
    </div>
  {/if}
{/each}
<form
  class="grid gap-1 py-1"
  onsubmit={(event) => {
    event.preventDefault();
    if (name.trim()) void keep();
  }}
>
  <div class="flex gap-1">
    <select class="control min-w-0 flex-1" aria-label="What to keep of the field" bind:value={kind}>
      {#each layers.kinds as one (one.kind)}<option value={one.kind}>{one.kind}</option>{/each}
    </select>
    <button
      class="control"
      disabled={!name.trim() || has !== undefined}
      data-help={has
        ? `They are kept already, as “${has.name}”.`
        : `Keep the ${kind} of the field by this name.`}>keep</button
    >
  </div>
  <input
    class="control w-full justify-start! text-left!"
    maxlength="60"
    autocomplete="off"
    placeholder="name"
    aria-label="Name of what is kept"
    bind:value={name}
  />
</form>
