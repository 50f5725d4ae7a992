<!-- @component The part: its name and note, how its ratchets and chords are played, how long its steps last. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { stepsFrom, stepsText } from "../../chart/loopSteps";
  import type { Part, PartChange } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import ChordFields from "./ChordFields.svelte";
  import DurationFields from "./DurationFields.svelte";
  import KitPartFields from "./KitPartFields.svelte";
  import RatchetFields from "./RatchetFields.svelte";

  const session = getSession();
  const part: Part = $derived(session.part);
  const held = $derived(part.held ?? []);
  const kit = $derived(session.track.kind === "kit");

  function set(change: ChangeOf<Part, PartChange>): Promise<void> {
    return session.setPart(change);
  }
</script>

<TextRow
  label="name"
  name="Part name"
  help="The part's name."
  value={part.name}
  commit={(name) => set({ name })}
/>
{#if kit}
  <KitPartFields {part} {set} />
{/if}
<NumberRow
  label="fill"
  help="How often a step that is off sounds while the project is filling."
  unit="%"
  value={part.fill}
  {...bounds.Part.fill}
  usual={0}
  commit={(fill) => set({ fill })}
/>
<ChoiceRow
  label="length unit"
  help="What the length lane's values are shares and multiples of: the step, or a note value."
  value={part.lengthUnit ?? ""}
  choices={[
    { value: "", label: "the step" },
    ...session.lists.rates.map(({ name }) => ({ value: name, label: name })),
  ]}
  select={(lengthUnit) => set({ lengthUnit })}
/>
<Section title="ratchets" summary={part.ratchet.spacing}>
  <RatchetFields {part} {set} />
</Section>
{#if !kit}
  <Section title="chords" summary="inversion {part.voicing.inversion}">
    <ChordFields {part} {set} />
  </Section>
{/if}
<TextRow
  label="loop steps"
  name="Loop steps"
  help="The gates go over these steps only, as “1, 3-5”; “none” is their own loop."
  value={stepsText(held) || "none"}
  commit={(text) => {
    const steps = stepsFrom(text);
    if (steps) return set({ held: steps });
    session.notices.add(`“${text}” names no steps; write them as 1, 3-5, up to 64, or none.`);
  }}
/>
<Section
  title="random step lengths"
  summary={part.durations?.length ? `${part.durations.length} lines` : "none"}
>
  <DurationFields durations={part.durations ?? []} />
</Section>
