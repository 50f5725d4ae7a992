<!-- @component What keys that come in do to a track beside giving its pitches: it plays only while one is held, begins anew; and which keys count. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { PitchSource } from "../../api/types";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    source: PitchSource;
    set: (change: Partial<PitchSource>) => Promise<void>;
  }
  let { source, set }: Props = $props();

  const keyed = $derived(
    source.onlyHeld || source.kind === "held" || (source.kind === "map" && source.byNote),
  );
  const switches = $derived(
    [
      {
        of: "onlyHeld" as const,
        there: true,
        words: "only while held",
        help: "The track plays only while a key is down that counts, or, where it is latched, since one was.",
      },
      {
        of: "latched" as const,
        there: source.kind === "held" || source.onlyHeld,
        words: "latched",
        help: "What is held stays when all keys are released, until another is pressed.",
      },
      {
        of: "restart" as const,
        there: keyed,
        words: "restart",
        help: "All lanes begin anew with the first step after a key is pressed while none was down.",
      },
    ].filter(({ there }) => there),
  );
</script>

{#each switches as { of, words, help } (of)}
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={source[of] ?? false}
    data-help={help}
    onclick={() => set({ [of]: !source[of] })}>{words}</button
  >
{/each}
{#if keyed}
  <NumberRow
    label="from channel"
    name="Channel of the keys"
    help="Channel of the notes that come in; 0 is all. Their input must be played in."
    value={source.channel ?? 0}
    {...bounds.PitchSource.channel}
    usual={0}
    commit={(channel) => set({ channel })}
  />
  {#each ["lowest", "highest"] as const as end (end)}
    <NumberRow
      label={end}
      name="{end === 'lowest' ? 'Lowest' : 'Highest'} key that counts"
      note
      help="The {end} note that counts, by name or MIDI number."
      value={source[end] ?? 0}
      min={end === "lowest" ? bounds.PitchSource.lowest.min : (source.lowest ?? 0)}
      max={end === "lowest" ? (source.highest ?? 0) : bounds.PitchSource.highest.max}
      commit={(key) => set({ [end]: key })}
    />
  {/each}
{/if}
