<!-- @component What the first bars of a project play, drawn small. -->
<script lang="ts">
  import type { ListedProject } from "../../api/types";
  import NoteLines from "../marks/NoteLines.svelte";

  let { project }: { project: ListedProject } = $props();

  const height = 52;
  let width = $state(0);
</script>

<div class="bg-paper border-line border" bind:clientWidth={width}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-label="First bars of {project.name}: {project.picture.length} notes"
  >
    {#if width > 0 && project.ends > 0}
      <NoteLines
        notes={project.picture}
        x={(tick) => (tick * width) / project.ends}
        height={height - 12}
        thickness={2.4}
        minWidth={2}
      />
    {/if}
  </svg>
</div>
