<!-- @component How a track goes to an output: on which channel, how high, and which of its notes. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Route, Track } from "../../api/types";
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import ProgramFields from "./ProgramFields.svelte";

  interface Props {
    track: Track;
    route: Route;
    /** What goes there: the track, or a part of a kit. */
    of: string;
    /** The output. */
    name: string;
    part: number | undefined;
  }
  let { track, route, of, name, part }: Props = $props();

  const session = getSession();
  const outputs = getOutputs();
  const clashes = $derived(outputs.clashesOf(track, route.output));
  const kind = $derived(outputs.list.find(({ id }) => id === route.output)?.kind);
  const bends = $derived(track.tuned?.by === "bend");

  function set(change: Partial<Route>): Promise<void> {
    return outputs.setRoute(track, route, change);
  }
</script>

<h2 class="text-[15px] font-semibold">{of}</h2>
<p class="text-ink-2 pb-2">to {name}</p>
{#if clashes}
  <p class="text-signal py-1" role="note">{clashes}.</p>
{/if}
{#if route.output === builtIn}
  {#if track.kind === "kit"}
    <p class="text-ink-2 py-1">
      A kit plays the percussion of General MIDI here: each part by its note.
    </p>
  {:else}
    <ChoiceRow
      label="patch"
      name="Patch of the route"
      help="By which of its patches the built-in sound plays the track."
      value={route.patch ?? "bell"}
      choices={session.lists.patches}
      select={(patch) => set({ patch: patch as Route["patch"] & string })}
    />
  {/if}
{/if}
{#if kind === "osc"}
  <p class="text-ink-2 py-1">
    Its notes go to addresses of the track, /track/{track.id}/…, whatever its channel is.
  </p>
{:else if kind === "voltages"}
  <p class="text-ink-2 py-1">
    Which channels carry its pitch, gate and velocity stands at the output, under {name}.
  </p>
{:else if bends}
  <p class="text-ink-2 py-1">
    The track bends its notes, each on a channel of its own, so it keeps its channels here.
  </p>
{:else}
  <NumberRow
    label="channel"
    name="Channel of the route"
    help="The MIDI channel at this output, 1 to 16; 0 is the track's own, which is {track.channel}."
    unit={route.channel ? "" : `0: the track's, ${track.channel}`}
    value={route.channel ?? 0}
    {...bounds.Route.channel}
    usual={0}
    commit={(channel) => set({ channel })}
  />
{/if}
{#if route.output !== builtIn && kind !== "voltages" && kind !== "osc"}
  <ProgramFields {track} {route} {bends} {set} />
{/if}
<NumberRow
  label="octave"
  name="Octave of the route"
  help="How many octaves higher or lower the notes go. Notes beyond MIDI's keys are left out."
  value={route.octave ?? 0}
  {...bounds.Route.octave}
  usual={0}
  commit={(octave) => set({ octave })}
/>
<NumberRow
  label="lowest note"
  note
  help="The lowest note of the track that goes here."
  value={route.lowest}
  min={bounds.Route.lowest.min}
  max={route.highest}
  usual={bounds.Route.lowest.min}
  commit={(lowest) => set({ lowest })}
/>
<NumberRow
  label="highest note"
  note
  help="The highest note of the track that goes here."
  value={route.highest}
  min={route.lowest}
  max={bounds.Route.highest.max}
  usual={bounds.Route.highest.max}
  commit={(highest) => set({ highest })}
/>
<NumberRow
  label="min velocity"
  help="Only notes of this velocity or more go here."
  value={route.softest}
  min={bounds.Route.softest.min}
  max={route.loudest}
  usual={bounds.Route.softest.min}
  commit={(softest) => set({ softest })}
/>
<NumberRow
  label="max velocity"
  help="Only notes of this velocity or less go here."
  value={route.loudest}
  min={route.softest}
  max={bounds.Route.loudest.max}
  usual={bounds.Route.loudest.max}
  commit={(loudest) => set({ loudest })}
/>
<NumberRow
  label="velocity curve"
  help="Above 0 soft notes are louder here, below 0 softer; the loudest stay as they are."
  unit="%"
  value={route.curve ?? 0}
  {...bounds.Route.curve}
  usual={0}
  commit={(curve) => set({ curve })}
/>
<button
  class="control mt-2 w-full"
  data-help="It does not go here any more. Undo brings the route back."
  onclick={() => outputs.toggle(track, route.output, part)}>take the route away</button
>
