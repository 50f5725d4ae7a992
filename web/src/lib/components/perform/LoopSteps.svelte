<!-- @component A loop of chosen steps of a track, at another speed or in another order. -->
<script lang="ts">
  import type { Control, Doing, Part } from "../../api/types";
  import { getSession } from "../../state/context";
  import { otherSpeeds, speedValue } from "../../chart/loopSteps";
  import type { Perform } from "../../state/perform.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  const tracks = $derived(session.project.tracks.filter(({ loop }) => !loop));
  const track = $derived(tracks.find(({ id }) => id === perform.loopTrack) ?? tracks[0]);
  const pattern = $derived(track?.patterns.find(({ id }) => id === stage.playing(track)));
  const first = $derived(pattern?.parts[0]);
  const looped = $derived(track && first ? stage.looped(address(first), first) : []);
  const speed: Control | undefined = $derived(track && { name: "speed", track: track.id });
  const playsAt = $derived(track && speed && stage.value(speed, speedValue(track.speed)));
  /** Up to the last step that any part has in its loop. */
  const count = $derived(
    Math.max(
      1 + Math.max(-1, ...looped),
      ...(pattern?.parts ?? []).map(({ lanes }) =>
        lanes.gate ? lanes.gate.first + lanes.gate.length : 16,
      ),
    ),
  );
  /** The steps while they are chosen by dragging, and what a drag makes of those that it crosses. */
  let chosen = $state<number[]>();
  let adds = true;
  const shown = $derived(chosen ?? looped);

  function address({ id }: Part) {
    return { track: track?.id ?? 0, pattern: pattern?.id ?? 0, part: id };
  }

  function loop(steps: number[]): Promise<void> {
    return stage.do(
      (pattern?.parts ?? []).flatMap((part) => stage.loop(address(part), part, steps)),
    );
  }

  function put(steps: number[], step: number): number[] {
    const rest = steps.filter((other) => other !== step);
    return adds ? [...rest, step].sort((a, b) => a - b) : rest;
  }

  function begin(event: PointerEvent, step: number): void {
    (event.currentTarget as Element).releasePointerCapture(event.pointerId); // so that others are entered
    adds = !looped.includes(step);
    chosen = put(looped, step);
  }

  function cross(step: number): void {
    if (chosen) chosen = put(chosen, step);
  }

  async function end(): Promise<void> {
    if (!chosen) return;
    await loop(chosen);
    chosen = undefined;
  }

  function press(step: number): Promise<void> {
    adds = !looped.includes(step);
    return loop(put(looped, step));
  }

  function order(part: Part): Control {
    return { name: "order", ...address(part), lane: "gate" };
  }

  function orderOf(part: Part): number {
    const written = session.lists.orders.findIndex(({ name }) => name === part.lanes.gate?.order);
    return Math.max(0, written);
  }

  function setOrder(value: number): Promise<void> {
    const parts = (pattern?.parts ?? []).filter(({ lanes }) => lanes.gate);
    return stage.do(parts.map((part) => stage.doing(order(part), value, orderOf(part))));
  }

  function setSpeed(value: number): Promise<void> {
    if (!track || !speed) return Promise.resolve();
    return stage.do([stage.doing(speed, value, speedValue(track.speed))]);
  }

  function clear(): Promise<void> {
    if (!track || !speed) return Promise.resolve();
    const parts = pattern?.parts ?? [];
    const controls = [speed, ...parts.map(order)].filter((control) => stage.isChanged(control));
    return stage.do([
      ...parts.flatMap((part) => stage.loop(address(part), part, [])),
      ...controls.map((control): Doing => ({ control })),
    ]);
  }
</script>

<svelte:window onpointerup={end} onpointercancel={() => (chosen = undefined)} />

<div
  class="border-line flex flex-wrap items-center gap-1 border-t px-3 py-1.5"
  role="group"
  aria-label="Loop"
>
  <select
    class="control h-[44px]! max-w-[130px]"
    aria-label="Track that loops"
    value={String(track?.id)}
    onchange={(event) => (perform.loopTrack = Number(event.currentTarget.value))}
  >
    {#each tracks as { id, name } (id)}<option value={String(id)}>{name}</option>{/each}
  </select>
  <div
    class="grid min-w-[min(100%,440px)] flex-1 gap-y-1"
    style:grid-template-columns="repeat({Math.min(16, count)}, minmax(0, 1fr))"
    role="group"
    aria-label="Steps that loop"
  >
    {#each { length: count }, step}
      <button
        class={[
          "control min-w-0! touch-none px-0! font-mono text-[12px]!",
          count > 32 ? "h-[34px]!" : "h-[44px]!",
          step % 4 === 3 && "mr-1",
        ]}
        aria-label="Loop step {step + 1}"
        aria-pressed={shown.includes(step)}
        data-help="Steps that are pressed are played over and over, from the moment that “apply at” says; drag across several. Without any the track plays on."
        onpointerdown={(event) => begin(event, step)}
        onpointerenter={() => cross(step)}
        onclick={(event) => event.detail === 0 && press(step)}>{step + 1}</button
      >
    {/each}
  </div>
  {#if track}
    {#each otherSpeeds(track.speed) as { label, words, value } (label)}
      <button
        class="control h-[44px]! min-w-[44px]! px-1! text-[12px]!"
        aria-label={words}
        aria-pressed={playsAt === value}
        disabled={value === undefined}
        data-help="Speed of the track: {words}."
        onclick={() => value !== undefined && setSpeed(value)}>{label}</button
      >
    {/each}
  {/if}
  <select
    class="control h-[44px]! max-w-[120px]"
    aria-label="Order of the loop"
    data-help="In which order the gates go over their steps."
    value={String(first ? stage.value(order(first), orderOf(first)) : 0)}
    onchange={(event) => setOrder(Number(event.currentTarget.value))}
  >
    {#each session.lists.orders as { label }, i (label)}<option value={String(i)}>{label}</option
      >{/each}
  </select>
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    data-help="Have the track play on as it is written: all its steps, at its speed, in its order."
    onclick={clear}>clear loop</button
  >
</div>
