<!-- @component The luck: its number, a new one, and the way back through all former ones. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import NumberField from "../number-field/NumberField.svelte";

  const session = getSession();
  const luck = $derived(session.project.luck);
  const former = $derived(luck.former.at(-1));
  const most = 999_999;

  function change(number: number): Promise<void> {
    return session.edit({ changeLuck: { number } });
  }

  function another(): number {
    const [random = 0] = crypto.getRandomValues(new Uint32Array(1));
    return random % (most + 1);
  }
</script>

<div>
  <div class="caption">luck</div>
  <div class="flex gap-1">
    <NumberField
      label="Luck"
      help="Luck: the number from which every random decision follows. The same number plays the same."
      value={luck.number}
      min={0}
      max={most}
      width="7ch"
      commit={change}
    />
    <button
      class="control px-1.5!"
      data-help="Take a new luck. L"
      onclick={() => change(another())}
      data-luck="new">new</button
    >
    <button
      class="control px-1.5!"
      disabled={former === undefined}
      data-luck="back"
      data-help={former === undefined
        ? "There is no former luck yet."
        : `Go back to luck ${former}. Shift+L`}
      onclick={() => session.edit({ backLuck: {} })}>back</button
    >
  </div>
</div>
