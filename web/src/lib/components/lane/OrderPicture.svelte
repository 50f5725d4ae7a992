<!-- @component An order as a small picture of its walk; a path as it really goes. -->
<script lang="ts">
  let { order, path = [] }: { order: string; path?: number[] | undefined } = $props();

  const width = 28;
  const height = 12;

  /** Heights of five steps of each walk. */
  const walks: Record<string, number[]> = {
    forward: [9, 7, 5, 3, 1],
    backward: [1, 3, 5, 7, 9],
    "there and back": [9, 5, 1, 5, 9],
    "there and back twice": [9, 1, 1, 9, 9],
    random: [4, 9, 1, 7, 2],
    shuffle: [5, 1, 9, 3, 7],
    drift: [6, 8, 6, 4, 5],
    path: [9, 2, 6, 2, 4],
  };
  const heights = $derived.by(() => {
    if (order !== "path" || path.length < 2) return walks[order] ?? [];
    const most = Math.max(...path, 1);
    return path.slice(0, 12).map((step) => 9 - (8 * step) / most);
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
