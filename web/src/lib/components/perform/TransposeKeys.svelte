<!-- @component Keys that transpose tracks while they are held, or latched until they are pressed again. -->
<script lang="ts">
  import { SvelteSet } from "svelte/reactivity";
  import type { Control } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  let unit = $state<"degrees" | "semitones">("degrees");
  /** Tracks that are not transposed. */
  const left = new SvelteSet<number>();
  let held = $state<number>();

  const melodic = $derived(session.project.tracks.filter(({ kind }) => kind !== "kit"));
  const chosen = $derived(melodic.filter(({ id }) => !left.has(id)));
  const steps = $derived(unit === "degrees" ? 7 : 12);
  const keys = $derived(Array.from({ length: 2 * steps + 1 }, (_, i) => i - steps));
  const first = $derived(chosen[0]);
  const now = $derived(
    first && stage.value({ name: unit, track: first.id }, first.transpose[unit]),
  );

  function control(track: number): Control {
    return { name: unit, track };
  }

  function press(by: number): void {
    if (perform.latch && now === by && by !== 0) return letGo();
    held = perform.latch ? undefined : by;
    void stage.do(chosen.map((track) => stage.doing(control(track.id), by, track.transpose[unit])));
  }

  function release(): void {
    if (held === undefined) return;
    held = undefined;
    letGo();
  }

  function letGo(): void {
    void stage.do(chosen.map(({ id }) => ({ control: control(id) })));
  }

  function toggle(track: number): void {
    if (!left.delete(track)) left.add(track);
  }
</script>

<svelte:window onpointerup={release} onpointercancel={release} onblur={release} />

<div
  class="border-line flex flex-wrap items-center gap-1 border-t px-3 py-1.5"
  role="group"
  aria-label="Transpose"
>
  <select
    class="control h-[44px]!"
    aria-label="Transpose by"
    data-help="Transpose by degrees of the scale, or by semitones, which can lead out of it."
    bind:value={unit}
  >
    <option>degrees</option>
    <option>semitones</option>
  </select>
  {#each melodic as track (track.id)}
    <button
      class="control h-[44px]! max-w-[110px] px-1.5! text-[12px]!"
      aria-pressed={!left.has(track.id)}
      data-help="Transpose {track.name} too."
      onclick={() => toggle(track.id)}
      ><span class="truncate leading-normal">{track.name}</span></button
    >
  {/each}
  <span class="w-2"></span>
  {#each keys as by (by)}
    <button
      class="control h-[44px]! min-w-[38px]! touch-none px-1! font-mono"
      aria-label="Transpose by {by} {unit}"
      aria-pressed={now === by}
      disabled={chosen.length === 0}
      data-help="Transpose the tracks that are pressed by {by} {unit}, from the moment that “apply at” says, for as long as it is held; with latch until it is pressed again."
      onpointerdown={() => press(by)}
      onclick={(event) => event.detail === 0 && (now === by ? letGo() : press(by))}
      >{by > 0 ? `+${by}` : by < 0 ? `−${-by}` : "0"}</button
    >
  {/each}
</div>
