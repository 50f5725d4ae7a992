<!-- @component Tracks against outputs: who goes where, and what plays there now. -->
<script lang="ts">
  import type { Output } from "../../api/types";
  import { routeName } from "../../output/activity";
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";
  import RouteCell from "./RouteCell.svelte";

  interface Shown {
    output: number;
    track?: number;
    setups?: boolean;
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

  let playing = $state.raw<ReadonlySet<string>>(new Set());
  $effect(() => {
    const look = setInterval(() => {
      const now = outputs.activity.at(performance.now());
      if (now.size > 0 || playing.size > 0) playing = now;
    }, 60);
    return () => clearInterval(look);
  });
</script>

<div class="min-h-0 overflow-auto px-4 py-3">
  <div class="flex flex-wrap items-center gap-2 pb-3">
    <h1 class="text-[15px] font-semibold">Where tracks go</h1>
    <span class="ml-auto"></span>
    {#if outputs.access !== true}
      <button
        class="control"
        data-help="Ask the browser to let this page use the MIDI ports of this machine."
        onclick={() => outputs.usePorts()}>use MIDI ports</button
      >
    {/if}
    <button
      class="control"
      aria-pressed={shown.setups ?? false}
      data-help="Keep where tracks go by name, or load what was kept from another project."
      onclick={() => show({ output: builtIn, setups: true })}>setups</button
    >
    <button
      class="control"
      data-help="Add an output. If a port is free it plays there at once."
      onclick={async () => show({ output: await outputs.add() })}>+ output</button
    >
    <button
      class="control bg-signal! text-on-signal! border-signal! font-semibold"
      data-help="End whatever sounds, on every output, by everything that can end a note. Playing goes on."
      onclick={() => session.song.panic()}>panic</button
    >
  </div>
  {#if session.devices.held && outputs.list.length > 0}
    <p class="text-ink-2 flex items-center gap-2 pb-3" role="alert">
      This project came from a file, so its outputs are not active on this machine yet: only the
      built-in sound plays.
      <button
        class="control"
        data-help="Have the project play the ports and devices of this machine that have the names of its outputs."
        onclick={() => session.attempt(() => session.devices.agree())}>use its outputs</button
      >
    </p>
  {/if}
  {#if typeof outputs.access === "string"}
    <p class="text-ink-2 pb-3" role="alert">
      The browser gives no MIDI ports: {outputs.access}. The built-in sound plays on. Browsers ask
      before they give them; a refusal can be taken back in the settings of this page, beside its
      address.
    </p>
  {/if}
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
            {#if outputs.routesOf(track).length === 0}
              <span class="caption pl-1">goes nowhere</span>
            {/if}
          </th>
          {#each columns as output (output?.id ?? builtIn)}
            {@const id = output?.id ?? builtIn}
            <td class="border-line border p-1">
              <RouteCell
                {track}
                output={id}
                name={output?.name ?? "Built-in sound"}
                plays={playing.has(routeName(track.id, id))}
                shown={shown.track === track.id && shown.output === id}
                show={() => show({ output: id, track: track.id })}
              />
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
