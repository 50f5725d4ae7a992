<!-- @component Setups: where tracks go, kept by name on this machine, to be loaded into other projects. -->
<script lang="ts">
  import { get, post } from "../../api/http";
  import { getSession } from "../../state/context";

  const session = getSession();
  let names = $state.raw<string[]>([]);
  let name = $state("");
  const longest = 60;

  $effect(() => {
    void session.attempt(async () => {
      names = await get<string[]>("api/setups");
    });
  });

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!name.trim()) return;
    await session.attempt(async () => {
      names = await post<string[]>("api/setups", { name: name.trim() });
      session.notices.add(`Kept as the setup “${name.trim()}”.`);
      name = "";
    });
  }

  async function load(kept: string): Promise<void> {
    await session.change((revision) => post("api/setups/load", { name: kept, revision }));
  }

  async function remove(kept: string): Promise<void> {
    await session.attempt(async () => {
      names = await post<string[]>("api/setups/delete", { name: kept });
    });
  }
</script>

<h2 class="text-[15px] font-semibold">Setups</h2>
<p class="text-ink-2 pb-2">
  A setup is the outputs and inputs with their settings, the clock that is followed, and the routes
  of all tracks. Loaded into another project, all are found by their names; what it does not name
  stays as it is.
</p>
{#each names as kept (kept)}
  <div class="flex items-center gap-1 py-0.5">
    <button
      class="control min-w-0 flex-1 justify-start!"
      data-help="Have this project go where the setup says. Undo takes it back."
      aria-label="Load the setup {kept}"
      onclick={() => load(kept)}><span class="truncate">{kept}</span></button
    >
    <button
      class="control"
      aria-label="Delete the setup {kept}"
      data-help="Delete this setup. Projects that have loaded it keep what they have."
      onclick={() => remove(kept)}>delete</button
    >
  </div>
{:else}
  <p class="text-ink-2 py-1">None is kept yet.</p>
{/each}
<form class="flex items-center gap-1 pt-2" onsubmit={keep}>
  <input
    class="control min-w-0 flex-1"
    aria-label="Name of the setup"
    placeholder="name"
    maxlength={longest}
    bind:value={name}
  />
  <button class="control" data-help="Keep where the tracks of this project go by that name.">
    keep
  </button>
</form>
