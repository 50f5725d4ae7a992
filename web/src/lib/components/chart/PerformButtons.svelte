<!-- @component What is performed on the chart: fill, a loop of selected steps, and pushing the tempo. -->
<script lang="ts">
  import type { Control, Doing, LaneName } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";

  const session = getSession();
  const view = getChartView();
  const stage = session.stage;
  const song = $derived(session.song);
  const fill: Control = { name: "fill" };
  /** By how much the tempo is pushed, in tenths of a percent. */
  const push = 30;
  let pushed = false;

  const held = $derived(stage.looped(session.address, session.part));
  /** The lanes with independent loops that play a range of their steps. */
  const ranges = $derived(
    stage.changes.filter(
      ({ control }) =>
        control.name === "length" &&
        control.track === session.track.id &&
        (control.pattern ?? 0) === session.address.pattern &&
        (control.part ?? 0) === session.part.id,
    ),
  );
  const looping = $derived(held.length > 0 || ranges.length > 0);
  const selected = $derived(
    Object.entries(view.selected).filter(([, steps]) => steps.length > 0) as [LaneName, number[]][],
  );

  /** Has the gate and the lanes on its step go over the selected steps, and independent loops over the range of theirs. */
  function toggleLoop(): Promise<void> {
    const of = (name: string, lane: LaneName): Control => ({ name, ...session.address, lane });
    const loop = (steps: number[]) => stage.loop(session.address, session.part, steps);
    if (looping)
      return stage.do([
        ...loop([]),
        ...ranges.flatMap(({ control }) => [
          { control: { ...control, name: "first" } },
          { control },
        ]),
      ]);
    const onGate = (lane: LaneName) => session.spec(lane).leads || session.lane(lane).linked;
    const steps = selected.flatMap(([lane, steps]) => (onGate(lane) ? steps : []));
    return stage.do([
      ...loop(steps),
      ...selected
        .filter(([lane]) => !onGate(lane))
        .flatMap(([lane, steps]): Doing[] => [
          { control: of("first", lane), value: Math.min(...steps) },
          { control: of("length", lane), value: Math.max(...steps) - Math.min(...steps) + 1 },
        ]),
    ]);
  }

  function press(by: number): void {
    pushed = true;
    void stage.do([{ control: { name: "push" }, value: by }], "now");
  }

  function release(): void {
    if (!pushed) return;
    pushed = false;
    void stage.do([{ control: { name: "push" } }], "now");
  }

  function pressByKey(event: KeyboardEvent, by: number): void {
    if ((event.key !== " " && event.key !== "Enter") || event.repeat) return;
    event.preventDefault();
    event.stopPropagation();
    press(by);
  }
</script>

<svelte:window onpointerup={release} onpointercancel={release} onblur={release} />

<span class="ml-2 flex items-center gap-1" role="group" aria-label="Perform">
  <button
    class="control h-[24px]! text-[12px]!"
    aria-pressed={stage.on(fill, session.project.filling)}
    data-help="Fill: conditions of fills hold, and steps that are off sound as often as their part's fill says. It ends when playing stops."
    onclick={() => stage.toggle(fill, session.project.filling, "now")}>fill</button
  >
  <button
    class="control h-[24px]! text-[12px]! whitespace-nowrap"
    aria-pressed={looping}
    disabled={!looping && selected.length === 0}
    data-help={looping || selected.length > 0
      ? "Loop steps: the gates go over the selected steps only, independent loops over the range of theirs; press again to play on."
      : "Loop steps: select steps first."}
    aria-label="loop steps"
    onclick={toggleLoop}
    ><span class="max-[1150px]:hidden">loop steps</span><span class="hidden max-[1150px]:inline"
      >loop</span
    ></button
  >
  <button
    class="control h-[24px]! text-[12px]! whitespace-nowrap tabular-nums"
    aria-pressed={song.jump !== undefined}
    aria-label={song.jump === undefined ? `Jump to bar ${song.bar}` : `Take back the jump`}
    disabled={!session.transport.playing}
    data-help={session.transport.playing
      ? "Jump: the song goes on from the bar that is selected on the ruler, at the moment that 'apply' says; press again to take it back."
      : "Jump: only while playing; play starts at the bar that is selected on the ruler."}
    onclick={() => song.toggleJump()}>to bar {song.jump ?? song.bar}</button
  >
  {#each [{ by: -push, sign: "−", words: "slower" }, { by: push, sign: "+", words: "faster" }] as { by, sign, words } (sign)}
    <button
      class="control h-[24px]! min-w-[22px]! touch-none px-1! text-[12px]!"
      aria-label="Push the tempo {words}"
      data-help="Push the tempo {words}, by 3 % for as long as it is held."
      onpointerdown={() => press(by)}
      onkeydown={(event) => pressByKey(event, by)}
      onkeyup={release}
      onblur={release}>{sign === "−" ? "− push" : "+"}</button
    >
  {/each}
</span>
