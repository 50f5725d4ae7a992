<!--
@component
The notes of a period as keys: those of the scale in ink, those kept out in fog, the root with a mark. A
tuning of other than twelve notes has its keys in a row.
-->
<script lang="ts">
  import type { Key } from "../../api/types";
  import { periodOf, rootNames, stateOf } from "../../chart/key";
  import { getSession } from "../../state/context";

  interface Props {
    key: Key;
    /** What a press on a note does, counted from the root. */
    press?: (note: number) => void;
    small?: boolean;
  }
  let { key, press, small = false }: Props = $props();

  const session = getSession();
  const period = $derived(periodOf(key));
  const names = $derived(rootNames(key, session.lists));
  const raised = [1, 3, 6, 8, 10];
  const piano = $derived(period === 12);
  const unit = $derived(small ? 9 : piano ? 38 : Math.max(14, Math.min(38, 460 / period)));
  const height = $derived(small ? 20 : 92);
  const width = $derived((piano ? 7 : period) * unit);

  const keys = $derived(
    Array.from({ length: period }, (_, pitch) => {
      const below = [0, 2, 4, 5, 7, 9, 11].filter((white) => white < pitch).length;
      const black = piano && raised.includes(pitch);
      return {
        pitch,
        note: (pitch - key.root + period) % period,
        black,
        x: !piano ? pitch * unit : black ? (below - 0.32) * unit : below * unit,
        width: black ? unit * 0.64 : unit,
        height: black ? height * 0.6 : height,
      };
    }).sort((a, b) => Number(a.black) - Number(b.black)),
  );
</script>

{#snippet face(k: (typeof keys)[number])}
  {@const state = stateOf(key, k.note, session.lists)}
  {@const cx = k.x + k.width / 2}
  {@const cy = k.height - (small ? 4.5 : 17)}
  <rect
    x={k.x + 0.5}
    y="0.5"
    width={k.width - 1}
    height={k.height - 1}
    rx={small ? 0 : 2}
    fill={k.black ? "var(--ink-3)" : "var(--raised)"}
    stroke="var(--line-strong)"
  />
  {#if state === "kept out"}
    <rect x={k.x + 1} y="1" width={k.width - 2} height={k.height - 2} fill="url(#fog)" />
  {/if}
  {#if state !== "out"}
    <circle
      {cx}
      {cy}
      r={small ? 2 : 8}
      fill={state === "in" ? "var(--ink)" : "var(--paper)"}
      stroke={k.black ? "var(--paper)" : "var(--ink)"}
    />
  {/if}
  {#if !small && k.note === 0}
    <path d="M{cx} {cy - 22}l5 8h-10z" fill="var(--signal)" stroke="var(--paper)" />
  {/if}
{/snippet}

<svg
  {width}
  {height}
  class="block"
  role={press ? "group" : "img"}
  aria-label="Notes of {key.scale}"
>
  {#each keys as k (k.pitch)}
    {#if press}
      {@const state = stateOf(key, k.note, session.lists)}
      <g
        role="checkbox"
        tabindex="0"
        aria-checked={state === "in"}
        aria-label="{names[k.pitch]}, {state === 'in' ? 'plays' : state}"
        class="cursor-pointer"
        onclick={() => press(k.note)}
        onkeydown={(event) => {
          if (event.key !== "Enter" && event.key !== " ") return;
          event.preventDefault();
          press(k.note);
        }}
      >
        {@render face(k)}
      </g>
    {:else}
      {@render face(k)}
    {/if}
  {/each}
</svg>
