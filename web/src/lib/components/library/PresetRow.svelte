<!-- @component A preset: what it is, and what can be done with it. -->
<script lang="ts">
  import type { ListedPreset } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Presets } from "../../state/presets.svelte";

  let { preset, presets }: { preset: ListedPreset; presets: Presets } = $props();

  const session = getSession();
  const heard = $derived(presets.isHeard(preset));
  const kind = $derived(session.lists.presetKinds.find(({ value }) => value === preset.kind));
</script>

<li class="border-line flex items-center gap-3 border-b py-1.5" aria-label={preset.name}>
  <span class="caption w-[62px] shrink-0">{kind?.label}</span>
  <span class="w-[180px] shrink-0 truncate font-semibold" title={preset.name}>{preset.name}</span>
  <span class="text-ink-2 min-w-0 flex-1 truncate" title={preset.words}>
    {preset.words || (preset.own ? "kept by you" : "")}
  </span>
  <div class="flex shrink-0 gap-1">
    <button
      class="control"
      aria-label={heard ? `Stop ${preset.name}` : `Hear ${preset.name}`}
      data-help="Hear how the track that is written would sound with it: from the next bar on while something plays, on the cue if there is one. Nothing changes."
      onclick={() => (heard ? presets.stop() : presets.hear(preset))}
      >{heard ? "stop" : "hear"}</button
    >
    <button
      class="control"
      aria-label="Use {preset.name}"
      data-help={kind?.use}
      onclick={() => presets.use(preset)}>use</button
    >
    <a
      class="control"
      aria-label="Export {preset.name}"
      href="api/presets/file?kind={preset.kind}&name={encodeURIComponent(preset.name)}"
      download
      data-help="Export the preset as a file.">export</a
    >
    <button
      class="control"
      aria-label="Delete {preset.name}"
      disabled={!preset.own}
      data-help={preset.own
        ? "Delete the preset; projects that use it stay as they are."
        : "Presets that ship with the program stay."}
      onclick={() => presets.delete(preset)}>delete</button
    >
  </div>
</li>
