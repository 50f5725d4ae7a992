<!-- @component The outputs to which the track goes: a press sends it there, or does not any more. -->
<script lang="ts">
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";
  import Section from "../fields/Section.svelte";

  const session = getSession();
  const outputs = getOutputs();
  const all = $derived([
    { id: builtIn, name: "Built-in sound", words: session.patchOf(session.track.id) },
    ...outputs.list.map((output) => ({
      ...{ id: output.id, name: output.name, words: outputs.stateOf(output).words },
    })),
  ]);
  const goes = $derived(
    all.filter(({ id }) => outputs.routesOf(session.track).some((route) => route.output === id)),
  );

  function set(change: { muteCuts?: boolean; chaseWaits?: boolean }): Promise<void> {
    return session.edit({ setTrack: { track: session.track.id, ...change } });
  }
</script>

<Section title="outputs" summary={goes.map(({ name }) => name).join(", ") || "goes nowhere"}>
  {#each all as { id, name, words } (id)}
    <button
      class="control my-0.5 w-full justify-start!"
      aria-pressed={goes.some((output) => output.id === id)}
      data-help="Send the track to {name}, or not any more. Connect has the rest: channel, octave, notes, patch."
      onclick={() => outputs.toggle(session.track, id)}
    >
      <span class="min-w-0 truncate">{name}</span>
      <span class="caption ml-auto min-w-0 truncate">{words}</span>
    </button>
  {/each}
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={session.track.muteCuts ?? false}
    data-help="When the track is muted, what sounds of it ends at once; else it finishes."
    onclick={() => set({ muteCuts: !session.track.muteCuts })}>mute cuts notes</button
  >
  <button
    class="control my-0.5 w-full justify-start!"
    aria-pressed={session.track.chaseWaits ?? false}
    data-help="An output to which the track begins to go in the middle of a long note waits for the next one; else the long one begins there at once."
    onclick={() => set({ chaseWaits: !session.track.chaseWaits })}>outputs wait for a note</button
  >
  {#if goes.length === 0}
    <p class="text-ink-2 py-0.5">The track goes nowhere: it plays on, unheard, and is in takes.</p>
  {/if}
  <a class="caption underline" href="#connect">all outputs: Connect</a>
</Section>
