<!-- @component The screen of what is kept: projects, and presets of parts of them. -->
<script lang="ts">
  import PresetRoom from "../lib/components/library/PresetRoom.svelte";
  import { tabKeys } from "../lib/input/tabKeys";
  import SetListRoom from "../lib/components/library/SetListRoom.svelte";
  import ProjectRoom from "../lib/components/library/ProjectRoom.svelte";

  const rooms = [
    { name: "projects", help: "The projects of the folder." },
    {
      name: "presets",
      help: "Lanes, parts, patterns, kits, scales, tunings, weights, rolls and what fields have, kept by name for any project.",
    },
    { name: "set lists", help: "Projects in the order in which they are to be played." },
  ] as const;
  let room = $state<(typeof rooms)[number]["name"]>("projects");
</script>

<main class="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
  <h1 class="sr-only">Library</h1>
  <div
    data-area
    class="border-line flex gap-4 border-b px-4 pt-2"
    role="tablist"
    aria-label="Library"
    {@attach tabKeys}
  >
    {#each rooms as { name, help } (name)}
      <button
        class={[
          "cursor-pointer border-b-2 pb-1 text-[14px]",
          room === name ? "border-signal font-semibold" : "text-ink-2 border-transparent",
        ]}
        role="tab"
        id="library-tab-{name.replace(' ', '-')}"
        aria-selected={room === name}
        tabindex={room === name ? 0 : -1}
        aria-controls="library-room"
        data-help={help}
        onclick={() => (room = name)}>{name}</button
      >
    {/each}
  </div>
  <div
    data-area
    class="grid min-h-0"
    id="library-room"
    role="tabpanel"
    aria-labelledby="library-tab-{room.replace(' ', '-')}"
  >
    {#if room === "projects"}<ProjectRoom />{:else if room === "presets"}<PresetRoom
      />{:else}<SetListRoom />{/if}
  </div>
</main>
