<!-- @component The tuning, from and to Scala files. -->
<script lang="ts">
  import type { Key, Track } from "../../api/types";
  import { getSession } from "../../state/context";

  let { key }: { key: Key } = $props();

  const session = getSession();
  let files = $state<HTMLInputElement>();
  let refused = $state<string>();

  function tunedInWords({ channel, tuned }: Track): string {
    if (!tuned || tuned.by === "instrument") return "by the instrument";
    if (tuned.by === "messages") return "by messages";
    const last = channel + (tuned.channels ?? 1) - 1;
    return last > channel ? `bent on channels ${channel} to ${last}` : `bent on channel ${channel}`;
  }

  /** Takes a scale file, with a keyboard mapping if one was selected beside it. */
  async function read(selected: FileList | null): Promise<void> {
    const list = [...(selected ?? [])];
    const text = async (ending: string) =>
      (await list.find((file) => file.name.toLowerCase().endsWith(ending))?.text()) ?? "";
    const [scl, kbm] = [await text(".scl"), await text(".kbm")];
    if (files) files.value = "";
    refused = scl
      ? await session.setTuning(scl, kbm)
      : "Nothing was changed: select a scale file (.scl), perhaps with its .kbm.";
  }
</script>

<div class="border-line border-t pt-2">
  <p class="pb-1">
    tuning <b>{key.tuning?.name ?? "12-tone equal temperament"}</b>
    {#if key.tuning}<span class="text-ink-2">{key.tuning.pitches.length} notes</span>{/if}
  </p>
  <p class="text-ink-2 pb-1">
    A tuning is heard at once: melodic tracks bend their notes, each on channels that are found for
    it. A track can leave its notes to the instrument, or tune keys by messages, on its own page.
  </p>
  {#if key.tuning}
    <ul class="pb-1" aria-label="How tracks are tuned">
      {#each session.project.tracks.filter((t) => t.kind !== "kit") as track (track.id)}
        <li class="flex justify-between gap-2">
          <span class="truncate">{track.name}</span>
          <span class="text-ink-2 shrink-0">{tunedInWords(track)}</span>
        </li>
      {/each}
    </ul>
  {/if}
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
  {#if refused}<p class="border-signal mt-1 border-l-4 pl-2" role="alert">{refused}</p>{/if}
</div>
