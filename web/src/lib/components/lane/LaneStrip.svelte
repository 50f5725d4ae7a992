<!-- @component A lane unrolled over the chart's stretch of time. Its steps are drawn by hand or by key. -->
<script lang="ts">
  import type { ChartLane, Lane, LaneName, LaneSpec } from "../../api/types";
  import { layOut, ValueScale } from "../../chart/geometry";
  import { valueText } from "../../chart/values";
  import { getChartView, getSession } from "../../state/context";
  import { pressKey } from "../../chart/keys";
  import { Painter, readoutCharacter } from "../../chart/painter.svelte";
  import LaneMarks from "../marks/LaneMarks.svelte";
  import StripBackground from "./StripBackground.svelte";
  import LoopEnd from "./LoopEnd.svelte";

  interface Props {
    spec: LaneSpec;
    lane: Lane;
    chartLane: ChartLane;
  }
  let { spec, lane, chartLane }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const name = $derived(spec.name as LaneName);

  let width = $state(0);
  let height = $state(0);

  const loop = $derived(session.loop(name));
  const chart = $derived(view.chart);
  const cells = $derived(chart ? layOut(chartLane, chart.from, chart.to, width) : []);
  const range = $derived(
    name === "pitch" ? view.pitchRows : { least: spec.least, most: spec.most },
  );
  const scale = $derived(new ValueScale(range.least, range.most, height));
  const values = $derived(view.values(name));
  const cursor = $derived(view.cursor.lane === name ? view.cursor.step : undefined);
  const cursorStep = $derived(view.stepOf(name));
  const painter = new Painter(view, () => ({ name, cells, scale, values }));

  function onkeydown(event: KeyboardEvent): void {
    if (pressKey(event, view, spec, loop)) {
      event.preventDefault();
      event.stopPropagation();
    }
  }

  function onwheel(event: WheelEvent): void {
    if (name !== "pitch") return;
    event.preventDefault();
    view.movePitchRows(event.deltaY < 0 ? 1 : -1);
  }
</script>

<div
  class="border-line relative min-h-0 touch-none border-t outline-offset-[-2px]"
  bind:clientWidth={width}
  bind:clientHeight={height}
  role="slider"
  tabindex="0"
  aria-label="{name}, step {cursorStep - loop.first + 1} of {loop.length}"
  aria-valuemin={spec.least}
  aria-valuemax={spec.most}
  aria-valuenow={values[cursorStep]}
  aria-valuetext={valueText(spec, values[cursorStep] ?? 0, chart?.degrees ?? [])}
  aria-orientation="vertical"
  onfocus={() => view.moveCursor(name, cursorStep)}
  {onkeydown}
  {onwheel}
  onpointerdown={(event) => painter.begin(event)}
  onpointermove={(event) => painter.move(event)}
  onpointerup={() => painter.end()}
  onpointercancel={() => painter.cancel()}
>
  {#if chart && width > 0}
    <svg class="absolute inset-0 block" {width} {height} aria-hidden="true">
      <StripBackground {name} {cells} {height} {width} {cursor} {scale} />
      <LaneMarks {spec} {cells} {values} {scale} {height} />
      {#if !view.following && !lane.linked}
        <LoopEnd {name} {lane} {cells} {width} {height} />
      {/if}
      {#if painter.readout}
        <g
          transform="translate({painter.readout.x} {painter.readout.y})"
          class="pointer-events-none"
        >
          <rect
            x="-2"
            y="-13"
            width={painter.readout.text.length * readoutCharacter + 8}
            height="18"
            rx="2"
            fill="var(--ink)"
          />
          <text x="2" y="0" font-size="12" fill="var(--paper)" font-family="var(--font-mono)">
            {painter.readout.text}
          </text>
        </g>
      {/if}
    </svg>
  {/if}
</div>
