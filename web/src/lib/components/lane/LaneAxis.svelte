<!-- @component What the heights of a lane's strip mean: the notes of the key, or some of the values. -->
<script lang="ts">
  import type { LaneName, LaneSpec } from "../../api/types";
  import { ValueScale } from "../../chart/geometry";
  import { lengthInSteps, wholeStep } from "../../chart/values";
  import { getChartView } from "../../state/context";

  interface Label {
    value: number;
    text: string;
    strong: boolean;
  }

  let { spec }: { spec: LaneSpec } = $props();

  const view = getChartView();
  const name = $derived(spec.name as LaneName);
  let height = $state(0);

  const range = $derived(
    name === "pitch" ? view.pitchRows : { least: spec.least, most: spec.most },
  );
  const scale = $derived(new ValueScale(range.least, range.most, height));
  const tight = $derived(height / (range.most - range.least + 1) < 11);
  const labels = $derived(name === "pitch" ? notes() : values());

  function notes(): Label[] {
    return view.degrees
      .filter((d) => d.degree >= range.least && d.degree <= range.most && (d.root || !tight))
      .map((d) => ({ value: d.degree, text: d.name, strong: d.root }));
  }

  function lengthLabel(value: number): string {
    return value > wholeStep ? `${lengthInSteps(value)}×` : `${value}`;
  }

  function values(): Label[] {
    if (name === "gate") return [];
    const middle = name === "length" ? wholeStep : Math.round((range.least + range.most) / 2);
    return [...new Set([range.least, middle, range.most])].map((value) => ({
      value,
      text: String(name === "length" ? lengthLabel(value) : value),
      strong: false,
    }));
  }
</script>

<div class="border-line min-h-0 overflow-hidden border-t" bind:clientHeight={height}>
  <svg width="34" {height} class="block" aria-hidden="true">
    {#each labels as label (label.value)}
      <text
        x="28"
        y={scale.y(label.value) + 4}
        text-anchor="end"
        font-size="11"
        font-weight={label.strong ? 600 : 400}
        fill={label.strong ? "var(--ink)" : "var(--ink-3)"}>{label.text}</text
      >
    {/each}
  </svg>
</div>
