<!-- @component A track on Perform: what is done to it, and its strip of time with its patterns and notes. -->
<script lang="ts">
  import type { Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";
  import NoteLines from "../marks/NoteLines.svelte";

  interface Props {
    track: Track;
    perform: Perform;
    width: number;
    height: number;
  }
  let { track, perform, width, height }: Props = $props();

  const session = getSession();
  const stage = session.stage;
  const outline = $derived(perform.outline(track.id));
  const silent = $derived(outline?.silent ?? false);
  const playing = $derived(stage.playing(track));
  const waiting = $derived(stage.waiting({ name: "pattern", track: track.id }));
  const bands = $derived(perform.bands(track));
  const silences = $derived(perform.silences(track));
  const scale = $derived(width / Math.max(1, perform.to - perform.from));
  const x = $derived((tick: number) => (tick - perform.from) * scale);
  const switches = [
    {
      name: "mute",
      words: "mute",
      help: "Mute: the track decides all the same, so unmuting never changes the music.",
    },
    { name: "solo", words: "solo", help: "Solo: only tracks that are solo are heard." },
  ] as const;
</script>

<div
  class="border-line grid min-w-0 grid-cols-[320px_minmax(0,1fr)] border-b max-[1150px]:grid-cols-[250px_minmax(0,1fr)]"
  data-track={track.id}
>
  <div class="flex min-w-0 flex-col justify-center gap-0.5 px-3">
    <div class="flex min-w-0 items-baseline gap-2">
      <span
        class={["min-w-0 truncate text-[15px] font-semibold", silent && "text-ink-2 font-normal"]}
        >{track.name}</span
      >
      <span class="caption min-w-0 flex-1 truncate">{bands[0]?.name}</span>
    </div>
    <div class="flex min-w-0 gap-1">
      {#each switches as { name, words, help } (name)}
        {@const control = { name, track: track.id }}
        <button
          class={[
            "control h-[44px]! min-w-[46px]! shrink-0 text-[12px]!",
            stage.isChanged(control) && "font-bold underline",
            stage.waiting(control) && "border-signal! border-dashed!",
          ]}
          aria-label="{words} {track.name}"
          aria-pressed={stage.trackOn(name, track)}
          data-help={help}
          onclick={() => stage.toggleTrack(name, track)}>{words}</button
        >
      {/each}
      <div
        class="flex min-w-0 [scrollbar-width:none] gap-1 overflow-x-auto"
        role="group"
        aria-label="Patterns of {track.name}"
      >
        {#each track.patterns as pattern (pattern.id)}
          <button
            class={[
              "control h-[44px]! max-w-[110px] min-w-[44px]! px-1! text-[12px]!",
              waiting?.doing.value === pattern.id && "border-signal! border-dashed!",
            ]}
            aria-pressed={pattern.id === playing}
            aria-label="{track.name}: pattern {pattern.name}"
            data-help="Play the pattern {pattern.name} from the moment that “apply at” says; press again to take that back."
            onclick={() => stage.play(track, pattern.id)}
            ><span class="truncate leading-normal">{pattern.name}</span></button
          >
        {/each}
      </div>
    </div>
  </div>
  <div class="relative min-w-0 overflow-hidden" style:height="{height}px">
    <svg {width} {height} class="block" aria-hidden="true">
      {#each bands as band, i (i)}
        <rect
          x={x(band.from) + 1}
          y="3.5"
          width={Math.max(0, x(band.to) - x(band.from) - 3)}
          height={height - 7}
          rx="2"
          fill={band.by === "plays" ? "var(--paper-2)" : "none"}
          stroke={band.by === "queue" ? "var(--signal)" : "var(--line-strong)"}
          stroke-dasharray={band.by === "plays" ? undefined : "5 3"}
        />
      {/each}
      <NoteLines
        notes={outline?.notes ?? []}
        {x}
        height={height - 12}
        thickness={height > 50 ? 4 : 2.6}
        minWidth={3}
        opacity={0.85}
      />
      {#each silences as silence, i (i)}
        <rect
          x={x(silence.from)}
          y="5"
          width={x(silence.to) - x(silence.from)}
          height={height - 10}
          fill="var(--paper-2)"
          opacity="0.72"
          data-silent
        />
      {/each}
    </svg>
    {#each bands as band, i (i)}
      {#if band.by !== "plays"}
        <span
          class="absolute top-[5px] flex h-[24px] items-center gap-1 pl-1.5 text-[12px]"
          style:left="{x(band.from)}px"
          >{band.name || "silent"}
          {#if band.id !== undefined}
            <button
              class="control h-[24px]! min-w-[24px]! px-1!"
              aria-label="Take back {band.name} of {track.name}"
              data-help="Take this change back before it happens."
              onclick={() => {
                const queued = stage.queue.find(({ id }) => id === band.id);
                if (queued) void stage.takeBack(queued);
              }}>✕</button
            >
          {:else}<span class="caption">{band.by}</span>{/if}
        </span>
      {/if}
    {/each}
  </div>
</div>
