<!-- @component Set lists: projects in the order in which they are to be played. -->
<script lang="ts">
  import type { SetList } from "../../api/types";
  import { counted } from "../../counted";
  import { getSession } from "../../state/context";
  import { Library } from "../../state/library.svelte";
  import { SetLists } from "../../state/setLists.svelte";

  const session = getSession();
  const library = new Library(session);
  const lists = new SetLists(session);
  let name = $state("");

  $effect(() => {
    void library.refresh();
    void lists.refresh();
  });

  function nameOf(id: number): string | undefined {
    return library.projects.find((project) => project.id === id)?.name;
  }

  async function add(): Promise<void> {
    const wanted = name.trim();
    if (!wanted) return;
    if (lists.all.some((list) => list.name === wanted)) {
      session.notices.add(`There is a set list “${wanted}” already; nothing was changed.`);
      return;
    }
    await lists.keep({ name: wanted, projects: [session.document] });
    name = "";
  }

  function move(list: SetList, from: number, to: number): Promise<void> {
    const projects = [...list.projects];
    projects.splice(to, 0, ...projects.splice(from, 1));
    return lists.keep({ ...list, projects });
  }
</script>

<div class="min-h-0 overflow-y-auto px-4 py-2">
  <form
    class="flex items-center gap-2 pb-2"
    onsubmit={(event) => {
      event.preventDefault();
      void add();
    }}
  >
    <input
      class="control w-[190px]"
      maxlength="60"
      placeholder="name"
      aria-label="Name of the set list"
      autocomplete="off"
      bind:value={name}
    />
    <button class="control" data-help="A set list that begins with the project that is open."
      >+ set list</button
    >
    <span class="caption"
      >On Perform, the next project of a list is made ready while one plays, and begins with the
      next bar.</span
    >
  </form>
  {#each lists.all as list (list.name)}
    <section class="border-line border-t py-2" aria-label="Set list {list.name}">
      <div class="flex items-center gap-2">
        <h2 class="font-semibold">{list.name}</h2>
        <span class="caption flex-1">{counted(list.projects.length, "project")}</span>
        <button
          class="control"
          disabled={list.projects.length >= 256}
          data-help="Add the project that is open at the end of the list."
          onclick={() => lists.keep({ ...list, projects: [...list.projects, session.document] })}
          >+ “{session.project.name}”</button
        >
        <button
          class="control"
          aria-label="Delete the set list {list.name}"
          onclick={() => lists.keep({ ...list, projects: [] })}>delete</button
        >
      </div>
      <ol class="pt-1" aria-label="Projects of {list.name}">
        {#each list.projects as id, i (i)}
          <li class="flex items-center gap-1 py-0.5">
            <span class="text-ink-2 w-5 text-right font-mono">{i + 1}</span>
            <span class={["min-w-0 flex-1 truncate", id === session.document && "font-semibold"]}
              >{nameOf(id) ?? "a project that is deleted, or gone"}</span
            >
            <button
              class="control"
              aria-label="Number {i + 1} earlier"
              disabled={i === 0}
              onclick={() => move(list, i, i - 1)}>↑</button
            >
            <button
              class="control"
              aria-label="Number {i + 1} later"
              disabled={i === list.projects.length - 1}
              onclick={() => move(list, i, i + 1)}>↓</button
            >
            <button
              class="control"
              aria-label="Take number {i + 1} out"
              onclick={() =>
                lists.keep({ ...list, projects: list.projects.filter((_, at) => at !== i) })}
              >✕</button
            >
          </li>
        {/each}
      </ol>
    </section>
  {/each}
</div>
