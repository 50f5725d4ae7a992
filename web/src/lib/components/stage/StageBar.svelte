<!-- @component From which moment what is performed counts, what waits, and how much is changed on top of the project. -->
<script lang="ts">
  import { counted } from "../../counted";
  import { getSession } from "../../state/context";
  import type { When } from "../../state/stage.svelte";

  let { open, brief }: { open: () => void; brief: boolean } = $props();

  const session = getSession();
  const stage = session.stage;
  const moments: { when: When; words: string }[] = [
    { when: "now", words: "at once" },
    { when: "step", words: "next step" },
    { when: "beat", words: "next beat" },
    { when: "bar", words: "next bar" },
    { when: "bars", words: "next 4 bars" },
    { when: "pattern", words: "end of pattern" },
  ];
  const waiting = $derived(stage.queue.map((action) => action.words).join(", "));
</script>

<span class="flex items-center gap-1 whitespace-nowrap" role="group" aria-label="Live changes">
  {#if !brief}
    <label class="flex items-center gap-1"
      ><span class="max-[1150px]:hidden">apply</span>
      <select
        class="control h-[22px]! py-0! text-[12px]!"
        aria-label="Apply at"
        data-help="When mutes, solos, patterns and other live changes apply while playing: at once, or with the next step, beat or bar."
        bind:value={stage.when}
      >
        {#each moments as { when, words } (when)}<option value={when}>{words}</option>{/each}
      </select></label
    >
    <button
      class="control h-[22px]! text-[12px]!"
      aria-label="back: undo the last live change"
      data-help={stage.back > 0
        ? `Undo the last of ${counted(stage.back, "live change")}; edits have an undo of their own.`
        : "There is no live change to undo."}
      disabled={stage.back === 0}
      onclick={() => stage.undo()}>back</button
    >
  {/if}
  <button
    class={["control h-[22px]! text-[12px]!", stage.changes.length > 0 && "font-semibold"]}
    data-help={waiting
      ? `Waiting: ${waiting}. Press to take back, and to see what is changed on top of the project.`
      : "What is changed on top of the project by performing: press to see it, to store it or to reset it."}
    data-stage
    onclick={open}
    >{stage.changes.length} live{stage.queue.length > 0
      ? `, ${stage.queue.length} waiting`
      : ""}</button
  >
</span>
