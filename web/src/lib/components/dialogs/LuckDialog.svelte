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

  const holds = $derived(session.project.tracks.map((track) => track.hold));

  /** Sets the hold of every track, or adds to it. */
  function holdAll(bars: number, add: boolean): Promise<void> {
    const edits = session.project.tracks.map((track) => ({
      setTrack: {
        track: track.id,
        hold: Math.min(64, Math.max(0, add ? track.hold + bars : bars)),
      },
    }));
    return session.editAll("hold of all tracks", edits);
  }

  let lastBars = $state(4);

  /** Has the bars that were heard last come again on all tracks, from now on. */
  async function holdLast(): Promise<void> {
    const tick = session.transport.tickAt(performance.now());
    if (tick === undefined) return;
    const holdFrom = Math.max(0, session.bars.at(tick) - lastBars);
    const edits = session.project.tracks.map((track) => ({
      setTrack: { track: track.id, hold: lastBars, holdFrom },
    }));
    await session.editAll("hold of the last bars", edits);
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
          min={0}
          max={mostLuck}
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
    <div class="border-line flex items-center gap-2 border-t pt-2">
      <span>hold the luck of all tracks for</span>
      <NumberField
        label="Hold of all tracks in bars"
        value={holds[0] ?? 0}
        min={0}
        max={64}
        usual={0}
        many={holds.some((hold) => hold !== holds[0])
          ? {
              text: `${Math.min(...holds)}–${Math.max(...holds)}`,
              shift: (by) => holdAll(by, true),
            }
          : undefined}
        width="5ch"
        commit={(bars) => holdAll(bars, false)}
      />
      <span>bars, then the same again; 0 never.</span>
    </div>
    <div class="flex items-center gap-2">
      <span>hold the luck of the last</span>
      <NumberField
        label="Last bars to hold"
        value={lastBars}
        min={1}
        max={64}
        width="5ch"
        commit={async (bars) => {
          lastBars = bars;
        }}
      />
      <span>whole bars that were heard</span>
      <button class="control" disabled={!session.transport.playing} onclick={holdLast}
        >hold the luck of the last bars</button
      >
    </div>
    <p class="text-ink-2">
      {session.track.name}, four bars from the first. What only one of the two plays stands in
      water. Hearing the other luck changes nothing until it is taken, and what is heard is recorded
      as it is heard. A hold counts at once, for the luck that the project has; the last bars can be
      held while playing.
    </p>
  </div>
</Dialog>
