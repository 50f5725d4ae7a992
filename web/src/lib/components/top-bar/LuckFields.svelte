<!-- @component The luck: its number, a new one, and the way back through all former ones. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getSession } from "../../state/context";
  import { randomLuck } from "../../state/luck";
  import NumberField from "../fields/NumberField.svelte";

  let { compare }: { compare: () => void } = $props();

  const session = getSession();
  const luck = $derived(session.project.luck);
  /** The luck that plays, where it is not the one that is written. */
  const plays = $derived(session.stage.value({ name: "luck" }, luck.number));
  const former = $derived(luck.former.at(-1));
</script>

<div>
  <div class={["caption whitespace-nowrap", plays !== luck.number && "font-semibold"]}>
    luck{plays === luck.number ? "" : `, now ${plays}`}
  </div>
  <div class="flex gap-1">
    <NumberField
      label="Luck"
      help="Luck: the number from which every random decision follows. The same number plays the same."
      value={luck.number}
      {...bounds.Luck.number}
      width="7ch"
      commit={(number) => session.setLuck(number)}
    />
    <button
      class="control px-1.5!"
      data-help="Take a new luck. L"
      onclick={() => session.setLuck(randomLuck())}
      data-luck="new">new</button
    >
    <button
      class="control px-1.5!"
      disabled={former === undefined}
      data-luck="back"
      data-help={former === undefined
        ? "There is no former luck yet."
        : `Go back to luck ${former}. Shift+L`}
      onclick={() => session.luckBack()}>back</button
    >
    <button
      class="control px-1.5!"
      data-luck="compare"
      data-help="Compare this luck with another, by eye and by ear, before taking it."
      aria-label="compare lucks"
      onclick={compare}
      ><span class="max-[1300px]:hidden">compare</span><span class="min-[1301px]:hidden">⇄</span
      ></button
    >
  </div>
</div>
