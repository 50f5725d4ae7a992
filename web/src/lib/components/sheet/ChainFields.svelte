<!-- @component Where the pattern that is written leads once it has played for some passes. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Chain, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  let { track }: { track: Track } = $props();

  const session = getSession();
  const written = $derived(session.pattern);
  const at = $derived({ track: track.id, pattern: written.id });
  const after = $derived(written.after);
  /** A pattern that is named is “pattern 3” in the list of choices. */
  const target = $derived(
    after === undefined
      ? "stays"
      : after.to === "pattern"
        ? `pattern ${after.pattern ?? 0}`
        : after.to,
  );
  const choices = $derived([
    { value: "stays", label: "plays on" },
    { value: "next", label: "the next one" },
    ...track.patterns.map(({ id, name }) => ({ value: `pattern ${id}`, label: name })),
    { value: "drawn", label: "drawn by weights" },
    { value: "silence", label: "silence" },
  ]);

  function lead(to: string): Promise<void> {
    if (to === "stays") return session.edit({ setPattern: { ...at, ends: true } });
    const passes = after?.passes ?? 1;
    if (to.startsWith("pattern"))
      return set({ passes, to: "pattern", pattern: Number(to.slice("pattern ".length)) });
    if (to === "drawn")
      return set({
        passes,
        to,
        weights: track.patterns.map(({ id }) => ({ pattern: id, weight: 1 })),
      });
    return set({ passes, to: to === "silence" ? "silence" : "next" });
  }

  function set(chain: Chain): Promise<void> {
    return session.edit({ setPattern: { ...at, after: chain } });
  }

  /** Changes where the pattern leads by then. */
  function change(made: (now: Chain) => Chain): Promise<void> {
    const { track, pattern } = at;
    return session.edit(() => {
      const of = session.project.tracks.find(({ id }) => id === track);
      const now = of?.patterns.find(({ id }) => id === pattern)?.after;
      return { setPattern: { track, pattern, after: made(now ?? { passes: 1, to: "drawn" }) } };
    });
  }

  function weigh(pattern: number, weight: number): Promise<void> {
    return change((now) => {
      const others = (now.weights ?? []).filter((w) => w.pattern !== pattern);
      return { ...now, weights: [...others, { pattern, weight }] };
    });
  }
</script>

<ChoiceRow
  label="leads to"
  name="Where the pattern leads"
  help="What the track plays once the pattern has been played for some passes: it plays on, or leads to another one, to one that luck draws by weights, or to silence, which mutes the track. What comes is shown on Perform."
  value={target}
  {choices}
  select={lead}
/>
{#if after}
  <NumberRow
    label="after passes"
    name="Passes before it leads"
    help="How many whole passes of its gate the pattern plays first; in a kit, of the longest gate. A track without a clock of its own leads nowhere."
    value={after.passes}
    {...bounds.Chain.passes}
    commit={(passes) => change((now) => ({ ...now, passes }))}
  />
  {#if after.to === "drawn"}
    {#each track.patterns as { id, name } (id)}
      <NumberRow
        label={name}
        name="Weight of {name}"
        help="How likely the pattern is drawn, beside the others; 0 is never."
        value={after.weights?.find(({ pattern }) => pattern === id)?.weight ?? 0}
        {...bounds.PatternWeight.weight}
        commit={(weight) => weigh(id, weight)}
      />
    {/each}
  {/if}
{/if}
