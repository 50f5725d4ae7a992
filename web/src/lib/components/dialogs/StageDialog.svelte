<!-- @component What performing has changed on top of the project, and what waits: to store, to reset, to take back. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const stage = session.stage;

  /** For how long reset is held until it resets, in milliseconds. */
  const holding = 1000;
  let held = $state<ReturnType<typeof setTimeout>>();

  function hold(): void {
    held ??= setTimeout(() => {
      held = undefined;
      void stage.reset();
    }, holding);
  }

  function release(): void {
    clearTimeout(held);
    held = undefined;
  }

  function holdByKey(event: KeyboardEvent): void {
    if (event.key !== " " && event.key !== "Enter") return;
    event.preventDefault();
    hold();
  }
</script>

<Dialog bind:open title="Live changes">
  <div class="text-ink grid gap-3">
    <p class="text-ink-2">
      What mute, solo, patterns and the like change while you perform lies on top of the project,
      and stays over stop and restart. Store writes it into the project, as one step of undo.
    </p>
    {#if stage.queue.length > 0}
      <div>
        <h3 class="font-semibold">waiting</h3>
        <ul aria-label="Waiting">
          {#each stage.queue as action (action.id)}
            <li class="flex items-center gap-2 py-0.5">
              <span class="min-w-0 flex-1 truncate" title={action.words}>{action.words}</span>
              <span class="caption">bar {session.bars.at(action.at) + 1}</span>
              <button
                class="control h-[24px]!"
                aria-label="take back {action.words}"
                onclick={() => stage.takeBack(action)}>take back</button
              >
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    <ul class="border-line max-h-[280px] overflow-y-auto border-y" aria-label="Live changes">
      {#each stage.changes as change (JSON.stringify(change.control))}
        <li class="flex items-center gap-2 py-0.5">
          <span class="min-w-0 flex-1 truncate" title={change.words}>{change.words}</span>
          <button
            class="control h-[24px]!"
            aria-label="as written, not {change.words}"
            onclick={() => stage.do([{ control: change.control }], "now")}>as written</button
          >
        </li>
      {:else}
        <li class="text-ink-2 py-1">Everything plays as it is written.</li>
      {/each}
    </ul>
    <div class="flex items-center gap-2">
      <button
        class="control font-semibold"
        disabled={stage.changes.length === 0}
        onclick={() => stage.store()}>store in the project</button
      >
      <button
        class={["control ml-auto w-[180px]", held !== undefined && "bg-water!"]}
        disabled={stage.changes.length + stage.queue.length === 0}
        onpointerdown={hold}
        onpointerup={release}
        onpointerleave={release}
        onkeydown={holdByKey}
        onkeyup={release}
        onblur={release}>{held === undefined ? "reset: hold for a second" : "hold …"}</button
      >
    </div>
  </div>
</Dialog>
