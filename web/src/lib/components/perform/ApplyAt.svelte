<!-- @component From which moment what is pressed counts while playing. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import type { When } from "../../state/stage.svelte";

  const stage = getSession().stage;
  const moments: { when: When; words: string }[] = [
    { when: "now", words: "now" },
    { when: "beat", words: "beat" },
    { when: "bar", words: "bar" },
    { when: "bars", words: "4 bars" },
    { when: "pattern", words: "pattern" },
  ];
</script>

<span class="caption">apply at</span>
{#each moments as { when, words } (when)}
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={stage.when === when}
    data-help="From when what is pressed counts while playing: {words}."
    onclick={() => (stage.when = when)}>{words}</button
  >
{/each}
