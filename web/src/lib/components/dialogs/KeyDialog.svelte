<!-- @component The key: its root, all scales on a small keyboard, scales of one's own, allowed notes, and tunings. -->
<script lang="ts">
  import {
    custom,
    notesOf,
    periodOf,
    rootNames,
    scaleNames,
    withAllowed,
    withNote,
    withScale,
  } from "../../chart/key";
  import { getSession } from "../../state/context";
  import Keyboard from "../key/Keyboard.svelte";
  import TuningFields from "../key/TuningFields.svelte";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const key = $derived(session.project.key);
  const roots = $derived(rootNames(key, session.lists));
  let wanted = $state("");
  let toggles = $state<"scale" | "allowed">("allowed");
  const scales = $derived(
    scaleNames(key, session.lists).filter((name) => name.includes(wanted.trim().toLowerCase())),
  );

  function press(note: number): void {
    const toggle = toggles === "scale" ? withNote : withAllowed;
    if (toggle(key, note, session.lists) !== key)
      void session.setKey((now) => toggle(now, note, session.lists));
  }
</script>

<Dialog bind:open title="Key" size="lg">
  <div class="text-ink grid grid-cols-[230px_minmax(0,1fr)] gap-4">
    <div class="flex h-[380px] min-h-0 flex-col gap-1">
      <input
        class="control w-full"
        type="search"
        placeholder="find a scale"
        aria-label="Find a scale"
        autocomplete="off"
        bind:value={wanted}
      />
      <ul class="border-line min-h-0 flex-1 overflow-y-auto border" aria-label="Scales">
        {#each scales as name (name)}
          <li>
            <button
              class={[
                "flex w-full cursor-pointer items-center justify-between gap-2 px-2 py-1 text-left",
                name === key.scale ? "bg-water font-semibold" : "hover:bg-paper-2",
              ]}
              aria-current={name === key.scale ? "true" : undefined}
              onclick={() => session.setKey((now) => withScale(now, name, session.lists))}
            >
              <span class="min-w-0 truncate">{name === custom ? "your own" : name}</span>
              {#if name !== custom && periodOf(key) === 12}
                <Keyboard key={{ root: key.root, scale: name }} small />
              {/if}
            </button>
          </li>
        {/each}
      </ul>
    </div>
    <div class="flex min-w-0 flex-col gap-3">
      <div class="flex items-center gap-2">
        <label for="key-root">root</label>
        <select
          id="key-root"
          class="control"
          value={key.root}
          onchange={({ currentTarget: { value } }) =>
            session.setKey((now) => ({ ...now, root: Number(value) }))}
        >
          {#each roots as root, i (root)}<option value={i}>{root}</option>{/each}
        </select>
        <b class="min-w-0 truncate">{key.scale === custom ? "your own scale" : key.scale}</b>
        <span class="text-ink-2">{notesOf(key, session.lists).length} notes</span>
      </div>
      <div class="overflow-x-auto pb-1"><Keyboard {key} {press} /></div>
      <div class="flex gap-1" role="group" aria-label="What a press on a key does">
        <button
          class="control"
          aria-pressed={toggles === "allowed"}
          onclick={() => (toggles = "allowed")}>a press allows notes</button
        >
        <button
          class="control"
          aria-pressed={toggles === "scale"}
          onclick={() => (toggles = "scale")}>a press makes a scale of your own</button
        >
      </div>
      <p class="text-ink-2">
        Steps hold degrees, so the music moves into another key or scale. A degree that is not
        allowed sounds as the nearest that is.
      </p>
      <TuningFields {key} />
    </div>
  </div>
</Dialog>
