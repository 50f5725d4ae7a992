<!-- @component The layers of a kind that a field can be given, one of which it has. -->
<script lang="ts">
  import type { Field, FieldLayer, PartAddress } from "../../api/types";
  import { getSession } from "../../state/context";
  import { FieldLayers } from "../../state/fieldLayers";

  interface Props {
    kind: FieldLayer["kind"];
    at: PartAddress;
    written: Field | undefined;
    /** Whose field it is, where that is not plain. */
    track?: string;
    /** How buttons are made larger or smaller. */
    size?: string;
    /** Deletes a layer; without it none can be. */
    remove?: (layer: FieldLayer["id"]) => unknown;
  }
  let { kind, at, written, track, size = "", remove }: Props = $props();

  const layers = new FieldLayers(getSession());
  const recalled = $derived(layers.recalled(kind, at, written));
  const waiting = $derived(layers.waiting(kind, at));
  const all = $derived([
    ...(written?.recalled?.[kind] ? [] : [{ id: 0, name: "as written" }]),
    ...layers.of(kind),
  ]);
</script>

<span
  class="flex flex-wrap gap-1"
  role="group"
  aria-label="{kind[0]?.toUpperCase()}{kind.slice(1)}{track ? ` of ${track}` : ''}"
>
  {#each all as { id, name } (id)}
    <span class="flex min-w-0">
      <button
        class={["control max-w-[140px]", size, waiting === id && "border-signal! border-dashed!"]}
        aria-pressed={recalled === id}
        aria-label="{track ? `${track}: ` : ''}{kind} {name}"
        data-help="Give the field these {kind}, from the moment that “apply at” says; press again to take that back."
        onclick={() => layers.recall(kind, at, written, id)}
        ><span class="truncate leading-normal">{name}</span></button
      >
      {#if remove && id > 0}
        <button
          class="control ml-[-1px] min-w-[22px]! px-0!"
          aria-label="Delete the {kind} {name}"
          data-help="Delete “{name}”; a field that has it has again what is written. Undo brings it back."
          onclick={() => remove(id)}>×</button
        >
      {/if}
    </span>
  {/each}
</span>
