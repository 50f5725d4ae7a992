<!-- @component Where projects are found, begun, opened and put away. -->
<script lang="ts">
  import ProjectCard from "./ProjectCard.svelte";
  import { getSession } from "../../state/context";
  import { Library } from "../../state/library.svelte";

  const session = getSession();
  const library = new Library(session);

  let files = $state<HTMLInputElement>();
  let refused = $state<string>();

  $effect(() => {
    void session.snapshot.revision; // a name may be another
    void library.refresh();
  });

  async function begin(from: "blank" | "example"): Promise<void> {
    const before = session.document;
    await library.add(from);
    if (session.document !== before) location.hash = "#write";
  }

  async function load(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    if (!file) return;
    const before = session.document;
    refused = await library.import(await file.text());
    input.value = "";
    if (session.document !== before) location.hash = "#write";
  }
</script>

<div class="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
  <div class="border-line flex flex-wrap items-center gap-2 border-b px-4 py-2">
    <button
      class="control"
      data-help="Begin a new project with one empty track, and open it."
      onclick={() => begin("blank")}>new project</button
    >
    <button
      class="control"
      data-help="Begin a new project from the example, and open it."
      onclick={() => begin("example")}>new from the example</button
    >
    <button
      class="control"
      data-help="Open a project file as another project; the one that is open stays in the list."
      onclick={() => files?.click()}>import…</button
    >
    <input
      type="file"
      accept="application/json,.json"
      class="hidden"
      aria-label="Project file"
      bind:this={files}
      onchange={(event) => load(event.currentTarget)}
    />
    <label class="ml-auto flex items-center gap-1.5">
      <span class="caption">while another plays, begin it</span>
      <select
        class="control"
        aria-label="When an opened project begins"
        data-help="When a project that you open begins while another plays. The clock never stops."
        value={library.atOnce ? "now" : "bar"}
        onchange={(event) => (library.atOnce = event.currentTarget.value === "now")}
      >
        <option value="bar">with the next bar</option>
        <option value="now">at once</option>
      </select>
    </label>
  </div>
  <div class="min-h-0 overflow-y-auto px-4 py-3">
    {#if refused}
      <p class="border-signal mb-3 border-l-4 pl-2" role="alert">{refused}</p>
    {/if}
    <ul
      class="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-3"
      aria-label="Projects of the folder"
    >
      {#each library.projects as project (project.id)}
        <ProjectCard {project} {library} />
      {/each}
    </ul>
    {#if library.deleted.length > 0}
      <h2 class="mt-4 mb-1 font-semibold">Deleted</h2>
      <ul aria-label="Deleted projects">
        {#each library.deleted as project (project.id)}
          <li class="flex items-center gap-2 py-0.5">
            <span>{project.name}</span>
            <button
              class="control"
              aria-label="Bring {project.name} back"
              onclick={() => library.restore(project.id)}>bring back</button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</div>
