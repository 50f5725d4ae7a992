<!-- @component What Connect can do as a whole, and what is in the way of ports and devices. -->
<script lang="ts">
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";

  interface Props {
    /** Whether the sheet shows setups. */
    setups: boolean;
    /** Whether it shows switches. */
    switches: boolean;
    /** Whether it shows faders. */
    faders: boolean;
    show: (next: {
      output: number;
      setups?: boolean;
      switches?: boolean;
      faders?: boolean;
    }) => void;
  }
  let { setups, switches, faders, show }: Props = $props();

  const session = getSession();
  const outputs = getOutputs();
</script>

<div class="flex flex-wrap items-center gap-2 pb-3">
  <h1 class="text-[15px] font-semibold">Where tracks go</h1>
  {#if session.devices.oscIn}
    <span class="caption" role="note">OSC comes in at {session.devices.oscIn}</span>
  {/if}
  <span class="ml-auto"></span>
  {#if outputs.browser.access !== true}
    <button
      class="control"
      data-help="Ask the browser to let this page use the MIDI ports of this machine."
      onclick={() => outputs.usePorts()}>use MIDI ports</button
    >
  {/if}
  <button
    class="control"
    aria-pressed={session.locked}
    data-help="Have this page change nothing of what is written, for the stage. Playing and performing go on."
    onclick={() => (session.locked = !session.locked)}>lock editing</button
  >
  <button
    class="control"
    aria-pressed={setups}
    data-help="Keep where tracks go by name, or load what was kept from another project."
    onclick={() => show({ output: builtIn, setups: true })}>setups</button
  >
  <button
    class="control"
    aria-pressed={switches}
    data-help="What buttons, pedals, keys and programs that come in do."
    onclick={() => show({ output: builtIn, switches: true })}>switches</button
  >
  <button
    class="control"
    aria-pressed={faders}
    data-help="Which controls faders, knobs and wheels turn."
    onclick={() => show({ output: builtIn, faders: true })}>faders</button
  >
  <button
    class="control"
    data-help="Add an output. If a port is free it plays there at once."
    onclick={async () => show({ output: await outputs.add() })}>+ output</button
  >
  <button
    class="control"
    data-help="Add an output of voltages: pitches, gates and triggers on the channels of a DC-coupled audio interface."
    onclick={async () => show({ output: await outputs.addVoltages() })}>+ voltages</button
  >
  <button
    class="control"
    data-help="Add an output for a program that understands OSC (Open Sound Control), on this machine or another."
    onclick={async () => show({ output: await outputs.addOSC() })}>+ OSC</button
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
{#if outputs.lacksTuning}
  <p class="text-ink-2 flex items-center gap-2 pb-3" role="alert">
    The tuning method of a track is messages, which browsers send only where that was allowed.
    <button
      class="control"
      data-help="Ask the browser to let this page send tuning messages (system exclusive) to MIDI ports."
      onclick={() => outputs.usePorts(true)}>allow tuning messages</button
    >
  </p>
{/if}
{#if typeof outputs.browser.access === "string"}
  <p class="text-ink-2 pb-3" role="alert">
    The browser gives no MIDI ports: {outputs.browser.access}. The built-in sound plays on. Browsers
    ask before they give them; a refusal can be taken back in the settings of this page, beside its
    address.
  </p>
{/if}
