<!-- @component What is done to a track once while it plays: all lanes realigned, or those that evolve rolled once more. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const stage = session.stage;
  const things = [
    {
      name: "realign",
      words: "realign now",
      help: "All lanes go on at their first steps, once, at the moment that 'apply' says; press again to take it back.",
    },
    {
      name: "evolve",
      words: "evolve now",
      help: "Lanes that evolve are rolled once more, at the moment that 'apply' says; press again to take it back.",
    },
  ];
</script>

<span class="grid grid-cols-2 gap-1 py-1" role="group" aria-label="Once">
  {#each things as { name, words, help } (name)}
    {@const control = { name, track: track.id }}
    <button
      class="control"
      aria-pressed={stage.waiting(control) !== undefined}
      disabled={!session.transport.playing}
      data-help={session.transport.playing ? help : `${help} Only while playing.`}
      onclick={() => stage.once(control)}>{words}</button
    >
  {/each}
</span>
