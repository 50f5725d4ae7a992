<!-- @component Ways from a take back into the project: a pattern of its notes, or a key of them. -->
<script lang="ts">
  import type { Summary } from "../../api/types";
  import { getSession, getTakeDesk } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import Section from "../fields/Section.svelte";

  let { summary }: { summary: Summary } = $props();

  const session = getSession();
  const desk = getTakeDesk();

  let rate = $state("");
  let wanted = $state("");

  const targets = $derived([
    ...session.project.tracks.map((t) => ({ value: String(t.id), label: t.name })),
    { value: "melodic", label: "a new track" },
    { value: "kit", label: "a new kit" },
  ]);
  const target = $derived(targets.some(({ value }) => value === wanted) ? wanted : "melodic");
  const rates = $derived([
    { value: "", label: "found" },
    ...session.lists.rates.map(({ name }) => ({ value: name, label: name })),
  ]);

  async function write(): Promise<void> {
    const track = Number(target) || 0;
    const kind = track ? {} : { kind: target };
    const tracks = session.project.tracks.length;
    await session.shelf.writePattern(summary, { track, ...kind, rate, notes: desk.choice });
    const written = track || session.project.tracks[tracks]?.id;
    if (written) session.selectTrack(written);
    location.hash = "#write";
  }
</script>

<p class="caption pb-1" role="note">acts on <b class="text-ink">{desk.scope}</b></p>
<Section title="Pattern">
  <ChoiceRow
    label="For"
    name="Pattern for"
    help="The track that gets a new pattern with the notes, and plays it."
    value={target}
    choices={targets}
    select={(value) => (wanted = value)}
  />
  <ChoiceRow
    label="Steps of"
    help="The rate of the steps; “found” takes the one on which the notes lie best."
    value={rate}
    choices={rates}
    select={(value) => (rate = value)}
  />
  <button
    class="control"
    data-help="Write the notes into steps: lengths, nudges, ratchets and chords are recognised. What cannot be kept is said."
    onclick={write}>write a pattern</button
  >
  <p class="text-ink-2 pt-1">
    Up to 64 steps. Choose one track above, and a stretch of bars, to write just those.
  </p>
</Section>
<Section title="Key">
  <button
    class="control"
    data-help="Make the notes the project's scale, on its root if that is among them."
    onclick={() => session.shelf.takeKey(summary, desk.choice)}>its notes as the scale</button
  >
</Section>
