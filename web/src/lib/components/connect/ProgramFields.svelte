<!-- @component Of a route to an instrument: on how many channels the notes go, and which program it plays. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Route, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    track: Track;
    route: Route;
    /** Whether the track bends its notes, each on a channel of its own. */
    bends: boolean;
    set: (change: Partial<Route>) => Promise<void>;
  }
  let { track, route, bends, set }: Props = $props();

  const least = 1; // channel
  const { programs } = getSession();
</script>

{#if !bends}
  <NumberRow
    label="channels"
    name="Channels of the route"
    help="On how many channels the notes go, from the first one up: each note on the one that has been free the longest, as for instruments of one voice that play chords together."
    value={Math.max(least, route.voices ?? least)}
    min={least}
    max={bounds.Route.voices.max}
    usual={least}
    commit={(voices) => set({ voices })}
  />
{/if}
<NumberRow
  label="program"
  name="Program of the route"
  help="The program that the instrument plays here; {programs.none} is the track's own."
  unit={route.program
    ? ""
    : `${programs.none}: ${track.program ? `the track's, ${programs.show(track.program)}` : "none"}`}
  show={programs.show}
  read={programs.read}
  value={route.program ?? 0}
  {...bounds.Route.program}
  usual={0}
  commit={(program) => set({ program })}
/>
{#if route.program}
  <NumberRow
    label="bank"
    name="Bank of the route"
    help="The bank from which the program is; {programs.none} says nothing of banks."
    show={programs.show}
    read={programs.read}
    value={route.bank ?? 0}
    {...bounds.Route.bank}
    usual={0}
    commit={(bank) => set({ bank })}
  />
{/if}
{#if route.program || track.program}
  <NumberRow
    label="program lead"
    help="How long before it is due a program is sent, for an instrument that takes time to load it: where playing begins, which is later by that, and in the rest before a program of a mod lane."
    unit="ms"
    value={route.lead ?? 0}
    {...bounds.Route.lead}
    usual={0}
    commit={(lead) => set({ lead })}
  />
{/if}
<button
  class="control my-0.5 w-full justify-start!"
  aria-pressed={programs.fromZero}
  data-help="Count programs and banks from 0 on the screen, as some instruments do, or from 1. What is sent is the same."
  onclick={() => programs.toggle()}>programs count from 0</button
>
