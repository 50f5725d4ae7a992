<!-- @component Two lucks side by side, for the eye and the ear, before one is taken. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { untrack } from "svelte";
  import { getSession } from "../../state/context";
  import { randomLuck } from "../../state/luck";
  import NumberField from "../fields/NumberField.svelte";
  import LuckPicture from "../luck/LuckPicture.svelte";
  import Dialog from "./Dialog.svelte";
  import LuckHolds from "./LuckHolds.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const own = $derived(session.project.luck.number);
  let other = $state(randomLuck());
  const luck = { name: "luck" };
  const heard = $derived(session.stage.isChanged(luck) ? "other" : "own");

  // Whichever way the dialog closes, the project's own luck is heard again.
  let tried = false;
  $effect(() => {
    if (open || !tried) return;
    tried = false;
    untrack(() => void hearLuck());
  });

  async function hear(which: "own" | "other"): Promise<void> {
    tried = which === "other";
    await hearLuck(tried ? other : undefined);
    if (open && !session.transport.playing) await session.song.togglePlaying();
  }

  async function change(number: number): Promise<void> {
    other = number;
    if (heard === "other") await hearLuck(number);
  }

  /** Has another luck heard without taking it; without a number the project's own is heard again. */
  function hearLuck(value?: number): Promise<void> {
    return session.stage.do(
      [value === undefined ? { control: luck } : { control: luck, value }],
      "now",
    );
  }

  async function take(): Promise<void> {
    await session.setLuck(other);
    await hear("own");
    open = false;
  }
</script>

<Dialog bind:open title="Luck" size="lg">
  <div class="text-ink grid gap-3">
    <div>
      <div class="flex items-center gap-2 pb-1">
        <b class="w-[110px]">now, {own}</b>
        <button class="control" aria-pressed={heard === "own"} onclick={() => hear("own")}
          >hear this</button
        >
      </div>
      <LuckPicture luck={own} against={other} />
    </div>
    <div>
      <div class="flex items-center gap-2 pb-1">
        <b>other,</b>
        <NumberField
          label="The other luck"
          value={other}
          {...bounds.Luck.number}
          width="7ch"
          commit={change}
        />
        <button class="control" onclick={() => change(randomLuck())}>new</button>
        <button class="control" aria-pressed={heard === "other"} onclick={() => hear("other")}
          >hear this</button
        >
        <button class="control ml-auto font-semibold" onclick={take}>use this luck</button>
      </div>
      <LuckPicture luck={other} against={own} />
    </div>
    <LuckHolds />
    <p class="text-ink-2">
      {session.track.name}, four bars from the first. What only one of the two plays stands in
      water. Hearing the other luck changes nothing until it is taken, and what is heard is recorded
      as it is heard. A hold counts at once, for the luck that the project has; the last bars can be
      held while playing.
    </p>
  </div>
</Dialog>
