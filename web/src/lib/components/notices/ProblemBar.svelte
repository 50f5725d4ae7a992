<!-- @component What is wrong with the places where things are kept, for as long as it is; and that playing was interrupted, until it goes on. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const session = getSession();
  const notices = session.notices;
  const interrupted = $derived(session.transport.interruptedAt);
  const bar = $derived(interrupted === undefined ? 0 : session.bars.at(interrupted) + 1);
</script>

<div role="alert" aria-label="Problems">
  {#if notices.problems.length > 0}
    <p class="border-signal bg-paper-2 text-ink border-b border-l-4 px-3 py-1.5">
      {notices.problems.join(" ")}
    </p>
  {/if}
  {#if interrupted !== undefined}
    <p
      class="border-signal bg-paper-2 text-ink flex items-center gap-3 border-b border-l-4 px-3 py-1"
    >
      Jettyfog ended while it played bar {bar}; nothing that was heard is lost.
      <button
        class="control h-[32px]!"
        data-help="Go on at bar {bar}, with the live changes and the section of the song as they were. Shift+Space"
        onclick={() => session.song.goOn()}>go on at bar {bar}</button
      >
    </p>
  {/if}
</div>
