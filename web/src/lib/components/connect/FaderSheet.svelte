<!-- @component What faders, knobs and wheels turn, all in one list. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Control, Mapping } from "../../api/types";
  import { mappedMessages, mappingWords } from "../../input/mappings";
  import { getOutputs, getPlaying, getSession } from "../../state/context";
  import { changed, curves, Movers, readBy, unitOf } from "../../state/movers.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import ControlPicker from "../perform/ControlPicker.svelte";

  const session = getSession();
  const outputs = getOutputs();
  const playing = getPlaying();
  const movers = new Movers(session);
  const all = $derived(session.project.mappings ?? []);

  const set = (at: number, change: Partial<Mapping> | undefined) =>
    session.edit(() => ({
      setProject: { mappings: changed(session.project.mappings ?? [], at, change) },
    }));

  function learn(control: Control): void {
    const spec = movers.spec(control);
    playing.learnFader(control, spec?.min ?? 0, spec?.max ?? 1);
  }
</script>

<h2 class="text-[15px] font-semibold">Faders and knobs</h2>
<p class="text-ink-2 pb-1">
  What turns controls. A fader does nothing until it has come to where its value stands, unless it
  jumps. {playing.faderLearned
    ? `Now move the fader for ${movers.words(playing.faderLearned)}.`
    : "Select a control, then move its fader."}
</p>
<ControlPicker
  {movers}
  label="Learn a fader for a control"
  want={(spec) => !spec.once && !spec.ofSong}
  without={[]}
  select={learn}
/>
{#each all as one, i (i)}
  {@const spec = movers.spec(one.control)}
  {@const words = movers.words(one.control)}
  {@const by = readBy(spec)}
  <div class="border-line mt-2 border-t pt-1" role="group" aria-label="Fader of {words}">
    <div class="flex items-center gap-1">
      <b class="min-w-0 flex-1 truncate font-semibold">{words}</b>
      <button
        class="control px-1!"
        aria-label="Take out the fader of {words}"
        onclick={() => set(i, undefined)}>×</button
      >
    </div>
    <p class="text-ink-2">{mappingWords(one)}</p>
    <ChoiceRow
      label="hears"
      name="Message of {words}"
      help="The message that turns it. A 14-bit controller has its fine half 32 numbers higher."
      value={one.message}
      choices={mappedMessages}
      select={(message) =>
        set(i, {
          message: message as Mapping["message"],
          ...(message === "control14" && { number: Math.min(31, one.number) }),
          ...(message !== "control" && one.turns !== "jump" && { turns: "" as const }),
        })}
    />
    <NumberRow
      label="channel"
      name="Channel of {words}"
      help="The MIDI channel, 1 to 16; 0 is any."
      value={one.channel}
      {...bounds.Mapping.channel}
      commit={(channel) => set(i, { channel })}
    />
    {#if one.message !== "bend" && one.message !== "pressure"}
      <NumberRow
        label="number"
        name="Number of {words}"
        help="The number of the controller or the note."
        value={one.number}
        {...bounds.Mapping.number}
        commit={(number) => set(i, { number })}
      />
    {/if}
    {#each ["from", "to"] as const as end (end)}
      <NumberRow
        label={end}
        name="{words} {end}"
        unit={unitOf(spec)}
        help="The value at the {end === 'from'
          ? 'lowest'
          : 'highest'} position; from above to is upside down."
        value={one[end] / by}
        min={(spec?.min ?? 0) / by}
        max={(spec?.max ?? 0) / by}
        decimals={by > 1 ? 1 : 0}
        width="76px"
        commit={(value) => set(i, { [end]: Math.round(value * by) })}
      />
    {/each}
    <ChoiceRow
      label="curve"
      name="Curve of {words}"
      help="How evenly the value follows the fader."
      value={one.curve ?? ""}
      choices={curves}
      select={(curve) => set(i, { curve: curve as NonNullable<Mapping["curve"]> })}
    />
    <ChoiceRow
      label="turns"
      name="How {words} is turned"
      help="Softly: from where the fader passes the value on. At once: the value jumps there. Endless knobs tell by how much they were turned, in one of three codes."
      value={one.turns ?? ""}
      choices={[
        { value: "", label: "softly" },
        { value: "jump", label: "at once" },
        ...(one.message === "control"
          ? [
              { value: "signed", label: "endless, bit 6 is −" },
              { value: "offset", label: "endless, from 64" },
              { value: "twos", label: "endless, two's compl." },
            ]
          : []),
      ]}
      select={(turns) => set(i, { turns: turns as NonNullable<Mapping["turns"]> })}
    />
    <ChoiceRow
      label="sent back to"
      name="Where {words} is sent back"
      help="The output to which the value goes back when it changes, so that lights or motors follow."
      value={String(one.sendsTo ?? 0)}
      choices={[
        { value: "0", label: "nowhere" },
        ...outputs.list.map(({ id, name }) => ({ value: String(id), label: name })),
      ]}
      select={(id) => set(i, { sendsTo: Number(id) })}
    />
  </div>
{/each}
