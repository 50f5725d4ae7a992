<!-- @component Which faders and knobs turn a control; learned by moving them. -->
<script lang="ts">
  import type { Control } from "../../api/types";
  import { mappingWords } from "../../input/mappings";
  import { getPlaying, getSession } from "../../state/context";
  import { sameControl } from "../../state/stage.svelte";
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    /** What is turned, in a few words. */
    name: string;
    control: Control;
    min: number;
    max: number;
  }
  let { name, control, min, max }: Props = $props();

  const session = getSession();
  const playing = getPlaying();
  const own = $derived(
    (session.project.mappings ?? []).filter((m) => sameControl(m.control, control)),
  );
  const learning = $derived(playing.learnsFader(control));
</script>

<FieldRow
  label="turned by"
  help="The fader, knob or wheel that turns “{name}”: press learn, then move it. What it does more is set on Connect, under faders."
>
  <button
    class="control"
    aria-label="Learn a fader for {name}"
    aria-pressed={learning}
    onclick={() => playing.learnFader(control, min, max)}>{learning ? "move it …" : "learn"}</button
  >
</FieldRow>
{#each own as one, i (i)}
  <p class="text-ink-2 pb-1 text-right text-[12px]">{mappingWords(one)}</p>
{/each}
