<!-- @component Exporting a take as sound, through the built-in sound. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getTakeDesk } from "../../state/context";
  import Section from "../fields/Section.svelte";

  let { summary }: { summary: Summary } = $props();

  const desk = getTakeDesk();
  const { wav } = desk; // which goes on while another page of the sheet is open

  async function render(): Promise<void> {
    const { roll, stretch } = desk;
    if (!roll) return;
    const { name } = summary;
    const { from, to } = stretch ?? { from: 0, to: roll.end };
    const file = await wav.render(roll, from, to);
    if (!file) return;
    const link = document.createElement("a");
    link.href = URL.createObjectURL(file);
    link.download = `${name}.wav`;
    link.click();
    URL.revokeObjectURL(link.href);
  }
</script>

<Section title="Sound">
  {#if wav.progress}
    <div class="flex items-center gap-2 py-1">
      <progress
        class="accent-ink h-2 min-w-0 flex-1"
        value={wav.progress.done}
        max={wav.progress.of}
        aria-label="Sound rendered"
      ></progress>
      <button class="control" onclick={() => wav.cancel()}>cancel</button>
    </div>
  {:else}
    <button
      class="control my-1"
      data-help="The selected stretch, or all, through the built-in sound: stereo, 48 kHz, 16 bit. Muted tracks are left out."
      disabled={!desk.roll}
      onclick={render}>.wav</button
    >
  {/if}
</Section>
