<!-- @component The tuning, from and to Scala files. -->
<script lang="ts">
  import type { Key } from "../../api/types";
  import { getSession } from "../../state/context";

  let { key }: { key: Key } = $props();

  const session = getSession();
  let files = $state<HTMLInputElement>();

  /** Takes a scale file, with a keyboard mapping if one was chosen beside it. */
  async function read(chosen: FileList | null): Promise<void> {
    const list = [...(chosen ?? [])];
    const text = async (ending: string) =>
      (await list.find((file) => file.name.toLowerCase().endsWith(ending))?.text()) ?? "";
    const [scl, kbm] = [await text(".scl"), await text(".kbm")];
    if (files) files.value = "";
    if (scl) await session.setTuning(scl, kbm);
    else
      session.notices.add(
        "Nothing was changed: choose a scale file (.scl), perhaps with its .kbm.",
      );
  }
</script>

<div class="border-line border-t pt-2">
  <p class="pb-1">
    tuning <b>{key.tuning?.name ?? "12-tone equal temperament"}</b>
    {#if key.tuning}<span class="text-ink-2">{key.tuning.pitches.length} notes</span>{/if}
  </p>
  <div class="flex flex-wrap gap-1">
    <button class="control" onclick={() => files?.click()}>open .scl, .kbm…</button>
    <a class="control" href="api/tuning/tuning.scl" download>save .scl</a>
    <a class="control" href="api/tuning/tuning.kbm" download>save .kbm</a>
    {#if key.tuning}
      <button class="control" onclick={() => session.setTuning("", "")}>equal temperament</button>
    {/if}
    <input
      type="file"
      accept=".scl,.kbm"
      multiple
      class="hidden"
      aria-label="Tuning files"
      bind:this={files}
      onchange={(event) => read(event.currentTarget.files)}
    />
  </div>
</div>
