<!-- @component The value under the cursor, beside its mark, whatever room there is. -->
<script lang="ts">
  interface Props {
    text: string;
    /** Where its cell begins, and how high its mark is. */
    x: number;
    y: number;
    /** The width of the strip. */
    width: number;
  }
  let { text, x, y, width }: Props = $props();

  const boxWidth = $derived(text.length * 6.7 + 6);
  const left = $derived(Math.min(Math.max(x, 1), width - boxWidth - 1));
  const top = $derived(y > 30 ? y - 21 : y + 7);
</script>

<rect x={left} y={top} width={boxWidth} height="15" rx="2" fill="var(--lamp)" />
<text
  x={left + 3}
  y={top + 11.5}
  font-size="11"
  fill="var(--on-lamp)"
  font-family="var(--font-mono)"
  data-cursor-value>{text}</text
>
