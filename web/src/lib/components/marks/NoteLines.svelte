<!-- @component Notes as thin lines, higher ones further up, drawn as one path: thousands cost no more than few. -->
<script lang="ts">
  interface Props {
    notes: readonly { start: number; end: number; key: number }[];
    /** Where a moment stands. */
    x: (tick: number) => number;
    /** The height of all lines together, below a margin of 4. */
    height: number;
    thickness: number;
    /** The width of the shortest line. */
    minWidth: number;
    opacity?: number;
  }
  let { notes, x, height, thickness, minWidth, opacity = 1 }: Props = $props();

  const path = $derived.by(() => {
    let [lowest, highest] = [Infinity, -Infinity];
    for (const { key } of notes) {
      lowest = Math.min(lowest, key);
      highest = Math.max(highest, key);
    }
    const perKey = (height - thickness) / Math.max(1, highest - lowest);
    return notes
      .map(({ start, end, key }) => {
        const y = 4 + thickness / 2 + (highest - key) * perKey;
        return `M${x(start).toFixed(1)} ${y.toFixed(1)}h${Math.max(minWidth, x(end) - x(start)).toFixed(1)}`;
      })
      .join("");
  });
</script>

<path d={path} stroke="var(--ink)" stroke-width={thickness} fill="none" {opacity} />
