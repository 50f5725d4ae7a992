<!-- @component What a hand does in a hurry: fill, sections, the tempo, luck, and what takes a mistake back. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { SetLists } from "../../state/setLists.svelte";
  import { randomLuck } from "../../state/luck";
  import type { Held, Perform } from "../../state/perform.svelte";
  import ApplyAt from "./ApplyAt.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  const holds: { held: Held; words: string; key: string; help: string }[] = [
    {
      held: "fill",
      words: "fill",
      key: "F",
      help: "Fill for as long as it is held: off steps sound, and conditions of fills hold.",
    },
    {
      held: "slower",
      words: "− push",
      key: ",",
      help: "Push the tempo slower, by 3 % for as long as it is held.",
    },
    {
      held: "faster",
      words: "+ push",
      key: ".",
      help: "Push the tempo faster, by 3 % for as long as it is held.",
    },
  ];
  const inSong = $derived(session.transport.playing && stage.song.sections.length > 0);
  const waitsForRelease = $derived(
    inSong && stage.song.end === 0 && stage.song.sections.at(-1)?.section !== 0,
  );
  const lists = new SetLists(session);
  /** The set list in which the project is, and its place there. */
  const list = $derived(lists.current);
  const place = $derived(list?.projects.indexOf(session.document) ?? -1);
  $effect(() => {
    void lists.refresh();
  });
</script>

{#snippet button(
  label: string,
  key: string,
  help: string,
  press: () => unknown,
  disabled = false,
  name?: string,
)}
  <button
    class="control h-[44px]! min-w-[38px]! px-1.5! text-[12px]!"
    {disabled}
    aria-label={name}
    data-help="{help} {key}"
    onclick={press}
    >{label}<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">{key}</span></button
  >
{/snippet}

<div
  class="border-line bg-paper-2 flex flex-wrap items-center gap-1 border-t px-3 py-1.5"
  role="group"
  aria-label="Hands"
>
  <ApplyAt />
  <span class="w-1 shrink-0"></span>
  {#each holds as { held, words, key, help } (held)}
    <button
      class="control h-[44px]! touch-none px-1.5! text-[12px]!"
      aria-pressed={perform.isHeld(held)}
      data-help="{help} {key}"
      onpointerdown={() => perform.hold(held)}
      onpointerup={() => perform.release(held)}
      onpointercancel={() => perform.release(held)}
      onclick={(event) => event.detail === 0 && perform.toggle(held)}
      onpointerleave={(event) => event.buttons > 0 && perform.release(held)}
      >{words}<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">{key}</span></button
    >
  {/each}
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={perform.latch}
    data-help="Latch: what is held stays until it is pressed again."
    onclick={() => (perform.latch = !perform.latch)}>latch</button
  >
  <span class="w-1 shrink-0"></span>
  {@render button(
    "",
    "←",
    "Go back to the section before, with the next bar.",
    () => session.song.goOver(-1),
    !inSong,
    "Section before ←",
  )}
  <span class="caption">section</span>
  {@render button(
    "",
    "→",
    "Go on to the next section, with the next bar.",
    () => session.song.goOver(1),
    !inSong,
    "Next section →",
  )}
  {@render button(
    "release",
    "E",
    "Have the section that waits for it end with its pass.",
    () => perform.releaseSection(),
    !waitsForRelease,
  )}
  <span class="w-1 shrink-0"></span>
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={perform.timing}
    data-help="The tempo over bars, and where bars begin: ramp, one is now, earlier and later."
    onclick={() => (perform.timing = !perform.timing)}>tempo</button
  >
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={perform.transposing}
    data-help="Keys that transpose tracks while they are held, or with latch until they are pressed again."
    onclick={() => (perform.transposing = !perform.transposing)}>transpose</button
  >
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={perform.looping}
    data-help="Loop chosen steps of a track, at another speed or in another order. O"
    onclick={() => (perform.looping = !perform.looping)}
    >loop<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">O</span></button
  >
  {#if session.project.tracks.some(({ kind }) => kind === "field")}
    <button
      class="control h-[44px]! px-1.5! text-[12px]!"
      aria-pressed={perform.layering}
      data-help="Give fields values, arrows, travellers and rules that are kept by name."
      onclick={() => (perform.layering = !perform.layering)}>fields</button
    >
  {/if}
  <button
    class="control h-[44px]! px-1.5! text-[12px]!"
    aria-pressed={perform.moving}
    data-help="Write macros, which one hand moves, and modulators, which move by themselves. W"
    onclick={() => (perform.moving = !perform.moving)}
    >moves<span class="text-ink-3 font-mono text-[11px]" aria-hidden="true">W</span></button
  >
  {#if list}
    <button
      class="control h-[44px]! px-1.5! text-[12px]!"
      disabled={place === list.projects.length - 1}
      data-help="The next project of the set list “{list.name}”: number {place + 2} of {list
        .projects.length}. While playing it begins with the next bar."
      onclick={() => list && lists.goOver(list, 1)}>next project</button
    >
  {/if}
  <span class="ml-auto flex gap-1">
    {@render button("keep", "K", "Keep the last eight bars that were heard as a take.", () =>
      perform.keepLastBars(),
    )}
    {@render button("luck", "L", "Another luck.", () => session.setLuck(randomLuck()))}
    {@render button(
      "take back",
      "⌫",
      "Take back what was queued last.",
      () => perform.takeBackLast(),
      stage.queue.length === 0,
    )}
    {@render button(
      "back",
      "B",
      "Undo the last live change.",
      () => stage.undo(),
      stage.back === 0,
    )}
  </span>
</div>
