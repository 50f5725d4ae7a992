<!-- @component The value under the cursor, beside its mark, whatever room there is. -->
<script lang="ts">
  interface Props {
    /** What is written, where its cell begins, and how high its mark is; nothing where the cursor is elsewhere. */
    value: { text: string; x: number; y: number } | undefined;
    /** The width of the strip. */
    width: number;
  }
  let { value, width }: Props = $props();

  const box = $derived.by(() => {
    const { text, x, y } = value ?? { text: "", x: 0, y: 0 };
    const boxWidth = text.length * 6.7 + 6;
    const left = Math.min(Math.max(x, 1), width - boxWidth - 1);
    return { text, width: boxWidth, left, top: y > 30 ? y - 21 : y + 7 };
  });
</script>

{#if value}
  <rect x={box.left} y={box.top} width={box.width} height="15" rx="2" fill="var(--lamp)" />
  <text
    x={box.left + 3}
    y={box.top + 11.5}
    font-size="11"
    fill="var(--on-lamp)"
    font-family="var(--font-mono)"
    data-cursor-value>{box.text}</text
  >
{/if}
