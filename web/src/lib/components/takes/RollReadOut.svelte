<!-- @component What is dragged to, in a few characters beside the pointer: a part of the roll's svg. -->
<script lang="ts">
  let { x, y, text }: { x: number; y: number; text: string } = $props();
</script>

<g transform="translate({x},{y})">
  <rect y="-16" width={text.length * 7 + 8} height="18" rx="2" fill="var(--ink)" />
  <text x="4" y="-3" font-size="11" font-family="var(--font-mono)" fill="var(--paper)">{text}</text>
</g>
