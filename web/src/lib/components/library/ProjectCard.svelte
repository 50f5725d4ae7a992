<!-- @component A project of the folder: its music in small, its name, and what can be done with it. -->
<script lang="ts">
  import type { ListedProject } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Library } from "../../state/library.svelte";
  import ProjectPicture from "./ProjectPicture.svelte";

  let { project, library }: { project: ListedProject; library: Library } = $props();

  const session = getSession();
  const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

  function rename(input: HTMLInputElement): void {
    const name = input.value.trim();
    if (name && name !== project.name) void library.rename(project.id, name);
    else input.value = project.name;
  }

  async function open(): Promise<void> {
    await library.open(project.id);
    if (session.document === project.id) location.hash = "#write";
  }
</script>

<li
  class={[
    "border-line bg-raised flex flex-col gap-1.5 border p-2.5",
    project.open && "border-ink!",
  ]}
  aria-label={project.name}
>
  <ProjectPicture {project} />
  <input
    class="control w-full justify-start! text-left! font-semibold"
    aria-label="Name of {project.name}"
    data-help="The project's name."
    maxlength="60"
    autocomplete="off"
    value={project.name}
    onchange={(event) => rename(event.currentTarget)}
  />
  <p class="caption flex justify-between gap-2">
    <span>changed {day.format(project.changed * 1000)}</span>
    {#if project.open}<strong class="text-ink">open</strong>{/if}
  </p>
  <div class="flex flex-wrap gap-1">
    <button
      class="control"
      disabled={project.open}
      data-help="Open the project. While another plays, it begins with the next bar, or at once, and the clock runs on."
      onclick={open}>open</button
    >
    <button
      class="control"
      data-help="Duplicate: a copy of the project as it is, without its history and takes."
      onclick={() => library.copy(project.id)}>duplicate</button
    >
    <a
      class="control"
      href="api/projects/{project.id}/project.json"
      download
      data-help="Export the project as a file.">export</a
    >
    <button
      class="control"
      disabled={project.open}
      data-help={project.open
        ? "The project that is open cannot be deleted: open another one first."
        : "Delete the project. It can be brought back below."}
      onclick={() => library.delete(project.id)}>delete</button
    >
  </div>
</li>
