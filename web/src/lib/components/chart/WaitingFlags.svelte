<!-- @component Flags on the ruler: what waits to be done, at its moment. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";

  let { height }: { height: number } = $props();

  const session = getSession();
  const view = getChartView();

  /** What waits to be done within the bars that are shown, by the moment at which it counts. */
  const waiting = $derived.by(() => {
    const jump = session.transport.jump;
    const all = [
      ...session.stage.queue.map(({ at, words }) => ({ at, words })),
      ...(jump ? [{ at: jump.at, words: `jump to bar ${session.bars.at(jump.to) + 1}` }] : []),
    ];
    return [...new Set(all.map(({ at }) => at))]
      .filter((tick) => tick >= view.from && tick < view.to)
      .map((tick) => ({
        tick,
        x: ((tick - view.from) * view.width) / (view.to - view.from),
        words: all
          .filter(({ at }) => at === tick)
          .map(({ words }) => words)
          .join(", "),
      }));
  });
</script>

{#each waiting as { x, words }, i (i)}
  <path
    d="M{x + 0.5} {height - 9}v-{height - 10}h13l-4 5l4 5h-13"
    fill="var(--paper)"
    stroke="var(--signal)"
    stroke-dasharray="3 2"
    data-waiting={words}
  >
    <title>{words}</title>
  </path>
{/each}
