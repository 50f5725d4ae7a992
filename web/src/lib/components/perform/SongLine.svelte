<!-- @component The song: its sections as flags over small pictures of their music, and the playhead. -->
<script lang="ts">
  import type { Section } from "../../api/types";
  import { counted } from "../../counted";
  import { getSession } from "../../state/context";
  import { shownSections } from "../../state/songPlan";
  import type { Perform } from "../../state/perform.svelte";
  import NoteLines from "../marks/NoteLines.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  const height = 62;
  let width = $state(0);
  let tick = $state<number>();

  const song = $derived(session.project.song ?? []);
  const planned = $derived(
    shownSections(song, stage.song.sections, tick === undefined ? 0 : session.bars.at(tick)),
  );
  const total = $derived(planned.reduce((sum, { length }) => sum + length, 0));
  const first = $derived(planned[0]?.bar ?? 0);
  const scale = $derived((width - 4) / Math.max(1, total));
  const playing = $derived(tick === undefined ? 0 : perform.sectionAt(tick));
  const waiting = $derived(stage.waiting({ name: "section" })?.doing.value);

  function sectionOf(id: number): Section | undefined {
    return song.find((section) => section.id === id);
  }

  function words({ repeats, bars, tempo }: Section): string {
    const length = repeats === 0 ? `${bars} until released` : counted(bars * repeats, "bar");
    return tempo ? `${length}, ${tempo / 1000} bpm` : length;
  }

  function press(section: number): void {
    perform.section = section;
    perform.page = "section";
    if (!perform.arranging) perform.goToSection(section);
  }

  $effect(() => {
    if (!session.transport.playing) {
      tick = undefined;
      return;
    }
    const watch = setInterval(() => (tick = session.transport.tickAt(performance.now())), 100);
    return () => clearInterval(watch);
  });
</script>

<div class="relative h-[62px] min-w-0" bind:clientWidth={width} role="group" aria-label="Song">
  {#each planned as { section: id, bar, length, sure } (`${id} ${bar}`)}
    {@const section = sectionOf(id)}
    {#if section}
      {@const w = length * scale}
      {@const on = playing === id && session.transport.playing}
      {@const picture = perform.picture(section.scene)}
      <button
        class={["absolute inset-y-0 cursor-pointer text-left", !sure && "opacity-75"]}
        style:left="{(bar - first) * scale + 2}px"
        style:width="{w}px"
        aria-label="Section {section.name}"
        aria-current={on ? "true" : undefined}
        data-help={perform.arranging
          ? `Write the section “${section.name}”: ${words(section)}.`
          : session.transport.playing
            ? `Section “${section.name}”, ${words(section)}: press to go there with the next bar; press again to take that back.`
            : `Section “${section.name}”, ${words(section)}.`}
        onclick={() => press(id)}
      >
        <svg {height} width={w} class="block" aria-hidden="true">
          <rect
            x="0.5"
            y="20.5"
            width={Math.max(0, w - 3)}
            height="40"
            rx="2"
            fill={on ? "var(--water)" : "none"}
            stroke={waiting === id
              ? "var(--signal)"
              : on || (perform.arranging && perform.section === id)
                ? "var(--ink)"
                : "var(--line-strong)"}
            stroke-width={waiting === id || (perform.arranging && perform.section === id) ? 2 : 1}
            stroke-dasharray={waiting === id ? "5 3" : undefined}
          />
          {#if picture}
            <g transform="translate(0 20)">
              <NoteLines
                notes={picture.notes}
                x={(at) => 3 + (at / picture.length) * Math.max(0, w - 8)}
                height={32}
                thickness={1.6}
                minWidth={1.5}
                opacity={0.55}
              />
            </g>
          {/if}
          <path
            d="M0.5 60V4.5h{Math.max(4, Math.min(w - 8, 150))}l-5 7l5 7h-{Math.max(
              4,
              Math.min(w - 8, 150),
            )}"
            fill={on ? "var(--ink)" : "var(--raised)"}
            stroke="var(--ink)"
          />
        </svg>
        <span
          class={[
            "pointer-events-none absolute top-[5px] left-[6px] truncate text-[12px] leading-[13px]",
            on ? "text-paper font-semibold" : "text-ink",
          ]}
          style:max-width="{Math.max(0, Math.min(w - 20, 138))}px"
          >{section.name}{#if section.repeats === 0}<span class="ml-1 font-mono text-[11px]">…</span
            >{/if}</span
        >
      </button>
    {/if}
  {/each}
  {#if tick !== undefined && planned.length > 0}
    {@const at = (session.bars.position(tick) - first) * scale + 2}
    {#if at >= 0 && at <= width}<span
        class="bg-signal pointer-events-none absolute inset-y-0 w-[2.5px]"
        style:left="{at}px"
      ></span>{/if}
  {/if}
  {#if planned.length === 0}
    <p class="text-ink-2 pt-5 pl-1">
      {song.length === 0
        ? "There is no song yet: press “arrange” to add sections, each of which plays a scene for some bars."
        : "The song was left: press a section or “song” to play it."}
    </p>
  {/if}
</div>
