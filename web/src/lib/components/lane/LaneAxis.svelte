<!--
@component
What the heights of a lane's strip mean: the notes of the key, or some of the values. The notes are pulled up and down,
by touch too, to see other octaves.
-->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { ValueScale } from "../../chart/geometry";
  import { shortText } from "../../chart/values";
  import { oneFinger } from "../../oneFinger";
  import { getChartView } from "../../state/context";

  interface Label {
    value: number;
    text: string;
    strong: boolean;
  }

  let { spec }: { spec: LaneSpec } = $props();

  const view = getChartView();
  const pitched = $derived(spec.reads === "degree");
  let height = $state(0);

  const range = $derived(pitched ? view.pitchRows : { least: spec.least, most: spec.most });
  const scale = $derived(new ValueScale(range.least, range.most, height));
  const tight = $derived(height / (range.most - range.least + 1) < 11);
  const labels = $derived(view.heights.isFolded(spec.name) ? [] : pitched ? notes() : values());

  /** Where the notes were taken hold of, how high a row was, and by how many rows they were pulled. */
  let pull: { y: number; row: number; rows: number } | undefined;

  function onpointerdown(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (!pitched) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const row = height / (range.most - range.least + 1);
    pull = { y: event.clientY, row, rows: 0 };
  }

  function onpointermove(event: PointerEvent): void {
    if (!pull) return;
    const rows = Math.round((event.clientY - pull.y) / pull.row);
    view.movePitchRows(rows - pull.rows);
    pull.rows = rows;
  }

  function notes(): Label[] {
    return view.degrees
      .filter((d) => d.degree >= range.least && d.degree <= range.most && (d.root || !tight))
      .map((d) => ({ value: d.degree, text: d.name, strong: d.root }));
  }

  function values(): Label[] {
    if (spec.reads === "words") return []; // they stand at the marks
    const middle =
      spec.reads === "duration" ? view.wholeStep : Math.round((range.least + range.most) / 2);
    return [...new Set([range.least, middle, range.most])].map((value) => ({
      value,
      text: shortText(spec, value, view),
      strong: false,
    }));
  }
</script>

<div
  class={[
    "border-line min-h-0 overflow-hidden border-t",
    pitched && "cursor-ns-resize touch-none select-none",
  ]}
  bind:clientHeight={height}
  role="presentation"
  data-axis={spec.name}
  data-help={pitched ? "Pull the notes up or down to see other octaves." : undefined}
  {@attach oneFinger}
  {onpointerdown}
  {onpointermove}
  onpointerup={() => (pull = undefined)}
  onpointercancel={() => (pull = undefined)}
>
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
