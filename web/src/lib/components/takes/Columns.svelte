<!-- @component Numbers as columns; the one that is pointed at is read out. -->
<script lang="ts">
  interface Props {
    values: { name: string; value: number }[];
    /** What the numbers are. */
    label: string;
  }
  let { values, label }: Props = $props();

  const height = 54;
  let width = $state(0);
  let pointed = $state<number>();

  const most = $derived(Math.max(1, ...values.map(({ value }) => value)));
  const step = $derived(Math.min(18, width / Math.max(1, values.length)));
  const read = $derived(pointed === undefined ? undefined : values[pointed]);
  const highest = $derived(values.find(({ value }) => value === most));

  function text({ name, value }: { name: string; value: number }): string {
    return `${name}: ${Number(value.toFixed(1))}`;
  }
</script>

<div bind:clientWidth={width} data-help={label}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-label="{label}: {values.length} of them"
    onpointermove={(event) => {
      const x = event.clientX - event.currentTarget.getBoundingClientRect().x;
      pointed = Math.min(values.length - 1, Math.max(0, Math.floor(x / step)));
    }}
    onpointerleave={() => (pointed = undefined)}
  >
    <line x2={width} y1={height - 0.5} y2={height - 0.5} stroke="var(--line-strong)" />
    {#each values as { value }, i (i)}
      <rect
        x={i * step + (step > 4 ? 1 : 0)}
        y={height - 1 - (value / most) * (height - 4)}
        width={Math.max(0.8, Math.min(14, step - (step > 4 ? 2 : 0)))}
        height={(value / most) * (height - 4)}
        fill={i === pointed ? "var(--signal)" : "var(--ink)"}
      />
    {/each}
  </svg>
  <p class="caption font-mono">
    {read ? text(read) : highest ? `most ${text(highest)}` : "none"}
  </p>
</div>
