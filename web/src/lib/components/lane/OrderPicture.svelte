<!-- @component An order as a small picture of its walk; a path as it really goes. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  let { order, path = [] }: { order: string; path?: number[] | undefined } = $props();

  const session = getSession();

  const width = 28;
  const height = 12;

  /** The first steps of the way: of a path that is written its own. */
  const way = $derived(
    order === "path" && path.length > 1
      ? path.slice(0, 12)
      : (session.lists.orders.find(({ name }) => name === order)?.picture ?? []),
  );
  const heights = $derived.by(() => {
    const most = Math.max(...way, ...path, 1);
    return way.map((step) => 9 - (8 * step) / most);
  });
  const points = $derived(
    heights.map((y, i) => ({
      x: 2 + (i * (width - 4)) / Math.max(1, heights.length - 1),
      y: y + 1,
    })),
  );
</script>

<svg {width} {height} fill="none" stroke="currentColor" aria-hidden="true">
  <polyline points={points.map(({ x, y }) => `${x},${y}`).join(" ")} stroke-opacity="0.5" />
  {#each points as { x, y }, i (i)}
    <circle cx={x} cy={y} r="1.5" fill="currentColor" stroke="none" />
  {/each}
</svg>
