<!-- @component What is wrong with the places where things are kept, for as long as it is. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const { notices } = getSession();
</script>

<div role="alert" aria-label="Problems" class="bg-paper-2">
  {#each notices.problems as problem (problem)}
    <p class="border-signal text-ink border-b border-l-4 px-3 py-1.5">{problem}</p>
  {/each}
</div>
