<!-- @component The project as a whole: its name, its file, another one in its place. -->
<script lang="ts">
  import Button from "flowbite-svelte/Button.svelte";
  import { getSession } from "../../state/context";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  let files = $state<HTMLInputElement>();
  let refused = $state<string>();

  async function openFile(file: File | undefined): Promise<void> {
    if (!file) return;
    refused = await session.openFile(await file.text());
    if (files) files.value = "";
    open = refused !== undefined;
  }

  $effect(() => {
    if (!open) refused = undefined;
  });

  async function startBlank(): Promise<void> {
    await session.startBlank();
    open = false;
  }
</script>

<Dialog bind:open title="Project">
  <label class="block">
    <span class="caption">name</span>
    <input
      class="control w-full"
      maxlength="60"
      autocomplete="off"
      value={session.project.name}
      onchange={(event) => {
        const name = event.currentTarget.value.trim();
        if (name && name !== session.project.name) void session.edit({ setProject: { name } });
        else event.currentTarget.value = session.project.name;
      }}
    />
  </label>
  <div class="flex flex-wrap gap-2">
    <Button size="xs" color="alternative" href="api/project.json" download>Save to a file</Button>
    <Button size="xs" color="alternative" onclick={() => files?.click()}>Open a file…</Button>
    <Button size="xs" color="alternative" onclick={startBlank}>Start from blank</Button>
    <input
      type="file"
      accept="application/json,.json"
      class="hidden"
      aria-label="Project file"
      bind:this={files}
      onchange={(event) => openFile(event.currentTarget.files?.[0])}
    />
  </div>
  {#if refused}<p class="border-signal border-l-4 pl-2" role="alert">{refused}</p>{/if}
  <p class="text-ink-2">
    All that you do is kept at once. Opening a file or starting from blank takes the place of this
    project; Undo brings it back.
  </p>
</Dialog>
