<!-- @component What is wrong with the places where things are kept, for as long as it is. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const { notices } = getSession();
</script>

<div role="alert" aria-label="Problems">
  {#if notices.problems.length > 0}
    <p class="border-signal bg-paper-2 text-ink border-b border-l-4 px-3 py-1.5">
      {notices.problems.join(" ")}
    </p>
  {/if}
</div>
