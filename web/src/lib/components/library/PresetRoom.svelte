<!-- @component Where presets are found, heard, used and kept. -->
<script lang="ts">
  import { counted } from "../../counted";
  import { getChartView, getSession } from "../../state/context";
  import { Presets } from "../../state/presets.svelte";
  import KeepPreset from "./KeepPreset.svelte";
  import PresetRow from "./PresetRow.svelte";

  const session = getSession();
  const presets = new Presets(getChartView());

  let files = $state<HTMLInputElement>();

  $effect(() => {
    void presets.refresh();
    return () => presets.stop();
  });

  async function load(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    if (file) await presets.load(await file.text());
    input.value = "";
  }
</script>

<div class="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
  <div class="border-line flex flex-wrap items-center gap-2 border-b px-4 py-2">
    <input
      class="control w-[190px] justify-start! text-left!"
      type="search"
      placeholder="search"
      aria-label="Search presets"
      data-help="Words that the name, the kind or the description has."
      bind:value={presets.search}
    />
    <select
      class="control"
      aria-label="Kind of preset"
      data-help="Which kind is shown."
      bind:value={presets.kind}
    >
      <option value="">all kinds</option>
      {#each session.lists.presetKinds as kind (kind.value)}
        <option value={kind.value}>{kind.label}</option>
      {/each}
    </select>
    <span class="caption">{counted(presets.found.length, "preset")}</span>
    <button class="control" data-help="Keep the preset of a file." onclick={() => files?.click()}
      >import…</button
    >
    <input
      type="file"
      accept="application/json,.json"
      class="hidden"
      aria-label="Preset file"
      bind:this={files}
      onchange={(event) => load(event.currentTarget)}
    />
    <KeepPreset {presets} />
  </div>
  <ul class="min-h-0 overflow-y-auto px-4 py-1" aria-label="Presets">
    {#each presets.found as preset (`${preset.own} ${preset.kind} ${preset.name}`)}
      <PresetRow {preset} {presets} />
    {:else}
      <li class="caption py-3">None has these words. Clear the search to see all.</li>
    {/each}
  </ul>
</div>
