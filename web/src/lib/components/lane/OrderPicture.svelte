<!-- @component An order, drawn as the walk that it is. -->
<script lang="ts">
  let { order }: { order: "forward" | "backward" } = $props();
</script>

<svg
  width="26"
  height="12"
  viewBox="0 0 26 12"
  fill="none"
  stroke="currentColor"
  aria-hidden="true"
>
  <g transform={order === "backward" ? "translate(26 0) scale(-1 1)" : undefined}>
    <path d="M2 9q2.5-7 5 0q2.5-7 5 0q2.5-7 5 0" stroke-width="1.2" />
    <path d="M17 9h6m-2.5-2.5L23 9l-2.5 2.5" stroke-width="1.4" />
  </g>
</svg>
