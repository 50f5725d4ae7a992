<!-- @component What comes in: the inputs of the project, whether they are heard, and whose clock is followed. -->
<script lang="ts">
  import type { Input } from "../../api/types";
  import { getSession } from "../../state/context";

  interface Props {
    /** The id of the input that the sheet shows. */
    shown: number | undefined;
    show: (id: number) => void;
  }
  let { shown, show }: Props = $props();

  const session = getSession();
  const inputs = session.inputs;
  const followed = $derived(session.project.clockIn?.input ?? 0);

  const kinds: { kind: Input["kind"]; words: string; name: string; help: string; once: boolean }[] =
    [
      {
        ...{ kind: "browserPort", words: "+ MIDI input", name: "Keys", once: false },
        help: "Add an input for a MIDI port of this browser, or a device of the machine on which the program runs.",
      },
      {
        ...{ kind: "screen", words: "+ keyboard", name: "Keyboard on the screen", once: true },
        help: "Say what becomes of the keyboard on the screen besides playing in.",
      },
      {
        ...{ kind: "osc", words: "+ OSC in", name: "Programs", once: true },
        help: "Say what becomes of OSC that programs of this machine send.",
      },
    ];
  const simulated = "simulated clock";
  const hasSimulated = $derived(inputs.list.some((input) => inputs.portOf(input) === simulated));

  const canAdd = ({ kind, once }: (typeof kinds)[number]): boolean =>
    !once || !inputs.list.some((input) => input.kind === kind);
</script>

<section class="pt-5" aria-label="Inputs">
  <div class="flex flex-wrap items-center gap-2 pb-2">
    <h2 class="text-[15px] font-semibold">What comes in</h2>
    <span class="ml-auto"></span>
    <button
      class="control"
      data-help="Ask the browser for the MIDI keyboards and controllers that are plugged in."
      onclick={() => inputs.findPorts()}>use MIDI inputs</button
    >
    {#each kinds.filter(canAdd) as { kind, words, name, help } (kind)}
      <button
        class="control"
        data-help={help}
        onclick={async () => show(await inputs.add(kind, name))}>{words}</button
      >
    {/each}
    {#if !hasSimulated}
      <button
        class="control"
        data-help="Add an input at which another machine is simulated: its clock, with jitter, drift, jumps of the tempo and silences."
        onclick={async () => show(await inputs.add("serverDevice", "Other machine", simulated))}
        >+ simulated clock</button
      >
    {/if}
  </div>
  <div class="flex flex-wrap gap-1">
    {#each inputs.list as input (input.id)}
      <button
        class="control h-auto! w-[164px] flex-col items-start! gap-0.5! py-1!"
        aria-pressed={shown === input.id}
        data-help="Show this input: its port, and what becomes of what comes in."
        onclick={() => show(input.id)}
      >
        <b class="w-full truncate text-left font-semibold">{input.name}</b>
        <span class="caption w-full truncate text-left" data-input-state={input.name}
          >{inputs.stateOf(input).words}</span
        >
        {#if followed === input.id}
          <span class="caption w-full truncate text-left">its clock is followed</span>
        {/if}
      </button>
    {:else}
      <p class="text-ink-2">
        Nothing is listed: the keyboard on the screen, and a port that is selected there, are played
        in and press switches.
      </p>
    {/each}
  </div>
</section>
