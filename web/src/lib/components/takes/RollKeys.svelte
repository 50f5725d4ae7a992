<!-- @component What the rows of a roll are: each note that there is room for, else those that are played; the parts of kits by their names. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import type { RollScale } from "../../roll/rollScale";
  import { getSession, getTakeDesk } from "../../state/context";

  interface Props {
    roll: Roll;
    scale: RollScale;
    width: number;
  }
  let { roll, scale, width }: Props = $props();

  const session = getSession();
  const desk = getTakeDesk();
  /** How far apart names are at least, in pixels. */
  const apart = 10;
  /** A longer name of a part is cut. */
  const mostCharacters = 12;

  const kits = $derived(new Set(roll.tracks.filter((track) => track.kit).map(({ id }) => id)));
  /** The keys that are played, and of them those that only kits play. */
  const played = $derived(new Set(roll.notes.map((note) => note.key)));
  const pitched = $derived(
    new Set(roll.notes.filter((note) => !kits.has(note.track)).map((note) => note.key)),
  );

  /** The keys in the order in which they deserve a name: played ones, each C, then the rest. */
  const labels = $derived.by(() => {
    const keys = Array.from(
      { length: scale.highest - scale.lowest + 1 },
      (_, i) => scale.lowest + i,
    );
    const worth = (key: number) => (played.has(key) ? 2 : 0) + (key % 12 === 0 ? 1 : 0);
    const named: { key: number; y: number; text: string; strong: boolean }[] = [];
    for (const key of keys.sort((a, b) => worth(b) - worth(a) || a - b)) {
      const y = scale.y(key) + scale.row / 2 + 4;
      if (named.some((other) => Math.abs(other.y - y) < apart)) continue;
      named.push({ key, y, text: nameOf(key), strong: played.has(key) });
    }
    return named;
  });

  function wheel(event: WheelEvent): void {
    event.preventDefault();
    desk.scrollKeys(-2 * Math.sign(event.deltaY));
  }

  function nameOf(key: number): string {
    if (!played.has(key) || pitched.has(key)) return session.notes.name(key);
    const own = roll.tracks.flatMap(({ parts = [] }) => parts).find((part) => part.key === key);
    const name = own?.name ?? session.lists.percussion.find(({ note }) => note === key)?.name;
    if (!name) return session.notes.name(key);
    return name.length > mostCharacters ? `${name.slice(0, mostCharacters - 1)}…` : name;
  }
</script>

<svg {width} height={scale.height} aria-hidden="true" onwheel={wheel}>
  {#each labels as { key, y, text, strong } (key)}
    <text
      x={width - 6}
      {y}
      font-size="11"
      text-anchor="end"
      fill={strong ? "var(--ink)" : "var(--ink-3)"}>{text}</text
    >
  {/each}
</svg>
