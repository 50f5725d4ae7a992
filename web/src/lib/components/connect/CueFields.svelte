<!-- @component The cue: where previews are heard, apart from what plays. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";

  const session = getSession();
  const { previews } = session;
  const choices = $derived([
    { value: "", label: "none" },
    ...previews.outputs.map(({ id, name }) => ({ value: id, label: name })),
  ]);
</script>

<h2 class="pt-3 text-[15px] font-semibold">Cue</h2>
<p class="text-ink-2 pb-1">
  Where previews are heard: notes that are tried, and takes. They are never recorded.
</p>
<ChoiceRow
  label="cue"
  name="Audio output of the cue"
  help="The audio output on which previews are heard alone. It stays with this browser."
  value={previews.cue?.id ?? ""}
  {choices}
  select={(id) => previews.select(id)}
/>
<button
  class="control mt-1 w-full"
  data-help="Look which audio outputs this machine has. Browsers ask whether the page may use the microphone before they tell their names; nothing is heard by it."
  onclick={() => previews.find()}>find audio outputs</button
>
<button
  class="control mt-1 w-full"
  data-help="Hear a middle C as previews are heard."
  onclick={() => session.hear(60)}>try a preview</button
>
{#if !previews.cue}
  <button
    class="control mt-1 w-full"
    aria-pressed={previews.allowed}
    data-help="Without a cue, previews are silent while it plays, unless this is on."
    onclick={() => (previews.allowed = !previews.allowed)}>previews beside what plays</button
  >
{/if}
