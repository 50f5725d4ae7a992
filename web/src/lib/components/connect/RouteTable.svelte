<!-- @component Tracks against outputs: who goes where, and what plays there now. -->
<script lang="ts">
  import type { Output, Track } from "../../api/types";
  import { routeName } from "../../output/activity";
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";
  import ConnectBar from "./ConnectBar.svelte";
  import InputTable from "./InputTable.svelte";
  import RouteCell from "./RouteCell.svelte";

  interface Shown {
    output: number;
    track?: number;
    part?: number | undefined;
    setups?: boolean;
    input?: number;
    switches?: boolean;
    faders?: boolean;
  }

  interface Props {
    /** What the sheet shows. */
    shown: Shown;
    show: (next: Shown) => void;
  }
  let { shown, show }: Props = $props();

  const session = getSession();
  const outputs = getOutputs();
  const columns = $derived<(Output | undefined)[]>([undefined, ...outputs.list]);

  /** The kit or field whose parts or travellers are shown. */
  let unfolded = $state<number>();
  let playing = $state.raw<ReadonlySet<string>>(new Set());
  $effect(() => {
    const look = setInterval(() => {
      const now = outputs.activity.at(performance.now());
      if (now.size > 0 || playing.size > 0) playing = now;
    }, 60);
    return () => clearInterval(look);
  });
</script>

<div data-area class="min-h-0 overflow-auto px-4 py-3">
  <ConnectBar
    setups={shown.setups ?? false}
    switches={shown.switches ?? false}
    faders={shown.faders ?? false}
    {show}
  />
  <table class="border-line border-collapse border">
    <thead>
      <tr>
        <th class="border-line border px-2 py-1 text-left font-normal">
          <span class="caption">track</span>
        </th>
        {#each columns as output (output?.id ?? builtIn)}
          {@const state = output && outputs.stateOf(output)}
          <th class="border-line border p-1 text-left align-top font-normal" scope="col">
            <button
              class="control h-auto! w-[150px] flex-col items-start! gap-0.5! py-1!"
              aria-pressed={!shown.setups &&
                !shown.switches &&
                shown.input === undefined &&
                shown.track === undefined &&
                shown.output === (output?.id ?? builtIn)}
              data-help="Show this output: its port, its offset, a test note."
              onclick={() => show({ output: output?.id ?? builtIn })}
            >
              <b class="w-full truncate text-left font-semibold"
                >{output?.name ?? "Built-in sound"}</b
              >
              <span class="caption w-full truncate text-left" data-state={output?.name}
                >{state?.words ??
                  (session.player.sounds ? "sounds in this page" : "silent in this page")}</span
              >
            </button>
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each session.project.tracks as track, i (track.id)}
        <tr>
          <th
            class="border-line border px-2 py-1 text-left font-normal whitespace-nowrap"
            scope="row"
          >
            <span class="text-ink-2 pr-1">{i + 1}</span><b class="font-semibold">{track.name}</b>
            {#if track.kind !== "melodic"}
              {@const parts = track.kind === "kit" ? "parts" : "travellers"}
              <button
                class="control ml-1"
                aria-expanded={unfolded === track.id}
                aria-label="{parts === 'parts' ? 'Parts' : 'Travellers'} of {track.name}"
                data-help="Show the {parts} of the {track.kind}, each of which can have routes of its own."
                onclick={() => (unfolded = unfolded === track.id ? undefined : track.id)}
                >{parts}</button
              >
            {/if}
            {#if outputs.routesOf(track).length === 0}
              <span class="caption pl-1">goes nowhere</span>
            {/if}
          </th>
          {@render cells(track)}
        </tr>
        {#if unfolded === track.id}
          {#each outputs.partsOf(track) as part (part.id)}
            <tr>
              <th
                class="border-line text-ink-2 border py-1 pr-2 pl-6 text-left font-normal"
                scope="row">{part.name}</th
              >
              {@render cells(track, part)}
            </tr>
          {/each}
        {/if}
      {/each}
    </tbody>
  </table>
  <InputTable shown={shown.input} show={(input) => show({ output: builtIn, input })} />
</div>

{#snippet cells(track: Track, part?: { id: number; name: string })}
  {#each columns as output (output?.id ?? builtIn)}
    {@const id = output?.id ?? builtIn}
    <td class="border-line border p-1">
      <RouteCell
        {track}
        part={part?.id}
        of={part?.name ?? track.name}
        output={id}
        name={output?.name ?? "Built-in sound"}
        plays={part === undefined && playing.has(routeName(track.id, id))}
        shown={shown.track === track.id && shown.output === id && shown.part === part?.id}
        show={() => show({ output: id, track: track.id, part: part?.id })}
      />
    </td>
  {/each}
{/snippet}
