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
  {#if goes.length === 0}
    <p class="text-ink-2 py-0.5">The track goes nowhere: it plays on, unheard, and is in takes.</p>
  {/if}
  <a class="caption underline" href="#connect">all outputs: Connect</a>
</Section>
