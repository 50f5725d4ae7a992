<!-- @component The bars that are looped, and whether chance is the same in each pass. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const session = getSession();
  const song = $derived(session.song);

  /** Has the bars play as they are in the song, or with chance going on; or has the song play on. */
  function select(chance: string): Promise<boolean> {
    return song.setLoop(chance === "none" ? undefined : song.loop, chance === "goesOn");
  }
</script>

{#if song.loop}
  {@const { from, bars } = song.loop}
  {@const range = `loop ${from}${bars > 1 ? `–${from + bars - 1}` : ""}`}
  <select
    class="control h-[22px]! w-[86px]! py-0! text-[11px]!"
    aria-label="Loop of bars"
    data-help="These bars repeat: every pass the same, or every pass with new chance."
    value={song.goesOn ? "goesOn" : "same"}
    onchange={(event) => select(event.currentTarget.value)}
  >
    <option value="same">{range}</option>
    <option value="goesOn">{range}, new chance</option>
    <option value="none">no loop</option>
  </select>
{/if}
