<!-- @component What notes of a roll are filled with, to be put into its picture; each track has one of its own, as far as they go. -->
<script lang="ts" module>
  /** How the notes of a track are filled, by its place; more tracks begin anew. */
  export const fills = [
    "var(--ink)",
    "url(#roll-hatch)",
    "url(#roll-dots)",
    "var(--paper)",
    "url(#roll-low)",
    "url(#roll-stripes)",
    "url(#roll-middle)",
    "url(#roll-first)",
  ];
</script>

{#snippet edge(offset: number, from: string, to: string)}
  <stop {offset} stop-color="var(--{from})" />
  <stop {offset} stop-color="var(--{to})" />
{/snippet}

<defs>
  <pattern id="roll-hatch" width="5" height="5" patternUnits="userSpaceOnUse">
    <rect width="5" height="5" fill="var(--paper)" />
    <path d="M-1 1l2 -2M0 5l5 -5M4 6l2 -2" stroke="var(--ink)" stroke-width="1.5" />
  </pattern>
  <pattern id="roll-dots" width="4" height="4" patternUnits="userSpaceOnUse">
    <rect width="4" height="4" fill="var(--paper)" />
    <rect x="1" y="1" width="2" height="2" fill="var(--ink)" />
  </pattern>
  <pattern id="roll-stripes" width="3" height="4" patternUnits="userSpaceOnUse">
    <rect width="3" height="4" fill="var(--paper)" />
    <rect width="1" height="4" fill="var(--ink)" />
  </pattern>
  <linearGradient id="roll-low" x2="0" y2="1">{@render edge(0.5, "paper", "ink")}</linearGradient>
  <linearGradient id="roll-first">{@render edge(0.5, "ink", "paper")}</linearGradient>
  <linearGradient id="roll-middle" x2="0" y2="1"
    >{@render edge(0.35, "paper", "ink")}{@render edge(0.65, "ink", "paper")}</linearGradient
  >
</defs>
