<!-- @component One note of a step. Nudge and length are in ticks, of which a beat has 960, as in the usual MIDI file. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { StepNote } from "../../api/types";
  import { shortText } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    note: StepNote;
    /** From 1. */
    number: number;
    /** What the pitch lane has at the step. */
    value: number;
    set: (change: Partial<StepNote>) => Promise<void>;
    /** Takes the note away, if it is not the only one. */
    remove: (() => Promise<void>) | undefined;
  }
  let { note, number, value, set, remove }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const spec = $derived(session.spec(view.cursor.lane));
  const perBeat = 960;
  const scale = $derived(session.lists.ticksPerQuarter / perBeat);
  const exact = (ticks: number | undefined): number =>
    Math.round((100 * (ticks ?? 0)) / scale) / 100;
  const ticks = (text: number): string => String(text);

  const fields = $derived([
    {
      ...{ label: "octave", of: "octave", value: note.octave ?? 0, ...bounds.StepNote.octave },
      ...{ help: "Octaves up or down.", commit: (octave: number) => set({ octave }) },
    },
    {
      ...{
        label: "alter",
        of: "alteration",
        value: note.alteration ?? 0,
        ...bounds.StepNote.alteration,
      },
      ...{
        help: "Semitones out of the scale.",
        commit: (alteration: number) => set({ alteration }),
      },
    },
    {
      ...{
        label: "velocity",
        of: "velocity",
        value: note.velocity ?? 0,
        ...bounds.StepNote.velocity,
      },
      ...{
        help: "Added to the velocity of the step.",
        commit: (velocity: number) => set({ velocity }),
      },
    },
    {
      ...{ label: "nudge", of: "nudge", value: exact(note.nudge), decimals: 2, show: ticks },
      ...{ min: bounds.StepNote.nudge.min / scale, max: bounds.StepNote.nudge.max / scale },
      ...{
        help: "How much later the note comes, in ticks, of which a beat has 960; earlier below 0.",
      },
      commit: (nudge: number) => set({ nudge: Math.round(nudge * scale) }),
    },
    {
      ...{ label: "length", of: "length", value: exact(note.length), decimals: 2, show: ticks },
      ...{ min: 0, max: bounds.StepNote.length.max / scale },
      ...{
        help: "How long the note sounds, in ticks, of which a beat has 960; 0 is as the length lane has it.",
      },
      commit: (length: number) => set({ length: Math.round(length * scale) }),
    },
  ]);
</script>

<div class="border-line border-b py-1" role="group" aria-label="Note {number}">
  <div class="flex items-center gap-1">
    <span class="caption flex-1">note {number}</span>
    <button
      class="control h-[22px]! min-w-[22px]! px-0!"
      aria-label="Remove note {number}"
      disabled={!remove}
      data-help="Take the note out of the step."
      onclick={() => remove?.()}>×</button
    >
  </div>
  <div class="grid grid-cols-3 gap-x-1">
    <label class="caption flex flex-col">
      pitch
      <NumberField
        label="Pitch of note {number}"
        help="The note, by its name or its degree."
        value={value + (note.degree ?? 0)}
        min={value + bounds.StepNote.degree.min}
        max={value + bounds.StepNote.degree.max}
        show={(degree) => shortText(spec, degree, view) || String(degree + 1)}
        read={(text) => session.notes.degreeOf(text, view.degrees)}
        width="5ch"
        commit={(degree) => set({ degree: degree - value })}
      />
    </label>
    {#each fields as { label, of, ...field } (label)}
      <label class="caption flex flex-col">
        {label}
        <NumberField {...field} label="{of} of note {number}" width="5ch" usual={0} />
      </label>
    {/each}
  </div>
</div>
