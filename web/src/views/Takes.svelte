<!-- @component The screen on which takes are looked at, corrected and carried away. -->
<script lang="ts">
  import TakeHead from "../lib/components/takes/TakeHead.svelte";
  import TakeList from "../lib/components/takes/TakeList.svelte";
  import TakeRoll from "../lib/components/takes/TakeRoll.svelte";
  import TakeSheet from "../lib/components/takes/TakeSheet.svelte";
  import { getTakeDesk } from "../lib/state/context";

  const desk = getTakeDesk();
</script>

<main
  class="grid min-h-0 grid-cols-[212px_minmax(0,1fr)_262px] max-[1150px]:grid-cols-[172px_minmax(0,1fr)_240px]"
>
  <TakeList />
  {#if desk.summary}
    <section
      data-area
      class="grid min-h-0 min-w-0 grid-rows-[auto_minmax(0,1fr)]"
      aria-label="Take"
    >
      <TakeHead summary={desk.summary} />
      {#if desk.roll}<TakeRoll roll={desk.roll} />{/if}
    </section>
    <TakeSheet summary={desk.summary} />
  {:else}
    <p class="text-ink-2 col-span-2 max-w-[540px] p-6">
      There is no take yet. Press R, or the red button above, and what you hear from then on is
      recorded, until you press R again or stop. Or play, and keep the last bars afterwards: the
      wake, below, has everything that sounded.
    </p>
  {/if}
</main>
