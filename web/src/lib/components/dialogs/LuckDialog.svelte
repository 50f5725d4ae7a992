<!-- @component Two lucks side by side, for the eye and the ear, before one is taken. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { getSession } from "../../state/context";
  import { mostLuck, randomLuck } from "../../state/luck";
  import NumberField from "../fields/NumberField.svelte";
  import LuckPicture from "../luck/LuckPicture.svelte";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const own = $derived(session.project.luck.number);
  let other = $state(randomLuck());
  let heard = $state<"own" | "other">("own");

  // Whichever way the dialog closes, the project's own luck is heard again.
  $effect(() => {
    if (!open) untrack(() => heard === "other" && hear("own"));
  });

  async function hear(which: "own" | "other"): Promise<void> {
    heard = which;
    await session.tryLuck(which === "other" ? other : undefined);
    if (open && !session.transport.playing) await session.togglePlaying();
  }

  async function change(number: number): Promise<void> {
    other = number;
    if (heard === "other") await session.tryLuck(number);
  }

  async function take(): Promise<void> {
    await session.edit({ changeLuck: { number: other } });
    await hear("own");
    open = false;
  }
</script>

<Dialog bind:open title="Compare two lucks" size="lg">
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
          min={0}
          max={mostLuck}
          width="7ch"
          commit={change}
        />
        <button class="control" onclick={() => change(randomLuck())}>new</button>
        <button class="control" aria-pressed={heard === "other"} onclick={() => hear("other")}
          >hear this</button
        >
        <button class="control ml-auto font-semibold" onclick={take}>take this luck</button>
      </div>
      <LuckPicture luck={other} against={own} />
    </div>
    <p class="text-ink-2">
      {session.track.name}, four bars from the first. What only one of the two plays stands in
      water. Nothing is changed until a luck is taken, and what is heard is recorded as it is heard.
    </p>
  </div>
</Dialog>
