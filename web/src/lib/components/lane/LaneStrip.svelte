<!-- @component A lane over the chart's stretch of time. Its steps are drawn by pointer or by key. -->
<script lang="ts">
  import type { LaneSpec } from "../../api/types";
  import { effectiveMarks } from "../../chart/effective";
  import { layOut, ValueScale } from "../../chart/geometry";
  import { pressKey } from "../../chart/keys";
  import { Painter, readoutCharacter } from "../../chart/painter.svelte";
  import { shortText, valueText } from "../../chart/values";
  import { oneFinger } from "../../oneFinger";
  import { getChartView, getSession } from "../../state/context";
  import LaneMarks from "../marks/LaneMarks.svelte";
  import CursorValue from "./CursorValue.svelte";
  import LoopEnd from "./LoopEnd.svelte";
  import StripBackground from "./StripBackground.svelte";

  interface Props {
    spec: LaneSpec;
    /** The place of the part whose lane it is. */
    index: number;
  }
  let { spec, index }: Props = $props();

  const session = getSession();
  const view = getChartView();
  const name = $derived(spec.name);
  const pitched = $derived(spec.reads === "degree");

  let width = $state(0);
  let height = $state(0);
  let strip = $state<HTMLElement>();

  const part = $derived(session.parts[index] ?? session.part);
  const written = $derived(index === session.partIndex);
  const lane = $derived(session.lane(name, part));
  const loop = $derived(session.loop(name, part));
  const chart = $derived(view.chart);
  const chartPart = $derived(chart?.parts[index]);
  const chartLane = $derived(chartPart?.lanes.find((l) => l.lane === name));
  const cells = $derived(chart && chartLane ? layOut(chartLane, chart.from, chart.to, width) : []);
  const range = $derived(pitched ? view.pitchRows : { least: spec.least, most: spec.most });
  const scale = $derived(new ValueScale(range.least, range.most, height));
  const values = $derived(written ? view.values(name) : lane.steps);
  const cursor = $derived(written && view.cursor.lane === name ? view.cursor.step : undefined);
  const cursorStep = $derived(written ? view.stepOf(name) : loop.first);
  const cursorCell = $derived(spec.leads ? undefined : cells.find((cell) => cell.step === cursor));
  const label = $derived(session.track.kind === "kit" ? `${part.name} ${spec.label}` : spec.label);
  const folded = $derived(view.heights.isFolded(name));
  /** What the step of the cursor has of its own, in words. */
  const words = $derived(
    spec.leads
      ? chartPart?.details[cursorStep]?.words
      : chartLane?.reaches.find(({ step }) => step === cursorStep)?.words,
  );
  const marks = $derived(
    chart && chartPart
      ? effectiveMarks(spec, chart, width, chartPart.forecasts, cells, values, scale)
      : [],
  );
  /** What the value of the cursor's step is written as, and what it turns out to be at its first place. */
  const cursorValue = $derived.by(() => {
    if (!cursorCell || folded || painter.readout) return undefined;
    const is = marks.find(({ cell }) => cell === cursorCell)?.is;
    const value = values[cursorStep] ?? 0;
    const text = shortText(spec, value, view);
    return {
      text: is === undefined ? text : `${text} → ${is}`,
      x: cursorCell.x,
      y: scale.y(value),
    };
  });
  const painter = new Painter(view, () => ({ spec, cells, scale, values }));

  $effect(() => {
    if (!strip || !written) return;
    const { current } = { current: strip };
    return view.register(name, () => ({
      box: current.getBoundingClientRect(),
      cells,
      focus: () => current.focus(),
    }));
  });

  function onpointerdown(event: PointerEvent & { currentTarget: HTMLElement }): void {
    session.selectPart(index);
    if (folded) return;
    if (view.tool === "select" && event.button === 0) view.beginBox(event);
    else painter.begin(event);
  }

  function onkeydown(event: KeyboardEvent): void {
    if (pressKey(event, view, spec, loop)) {
      event.preventDefault();
      event.stopPropagation();
    }
  }

  function onfocus(): void {
    session.selectPart(index);
    view.moveCursor(name, view.stepOf(name));
  }

  function onwheel(event: WheelEvent): void {
    if (!pitched) return;
    event.preventDefault();
    view.movePitchRows(event.deltaY < 0 ? 1 : -1);
  }
</script>

<div
  class="border-line relative min-h-0 touch-none border-t outline-offset-[-2px]"
  bind:this={strip}
  bind:clientWidth={width}
  bind:clientHeight={height}
  role="slider"
  tabindex="0"
  aria-label="{label}, step {cursorStep - loop.first + 1} of {loop.length}"
  aria-valuemin={spec.least}
  aria-valuemax={spec.most}
  aria-valuenow={values[cursorStep]}
  aria-valuetext={[valueText(spec, values[cursorStep] ?? 0, view), words]
    .filter(Boolean)
    .join(", ")}
  data-help={words && `Step ${cursorStep + 1}: ${words}.`}
  aria-orientation="vertical"
  {onfocus}
  {onkeydown}
  {onwheel}
  {@attach oneFinger}
  {onpointerdown}
  onpointermove={(event) => painter.move(event)}
  onpointerup={() => painter.end()}
  onpointercancel={() => painter.cancel()}
>
  {#if chartPart && width > 0}
    <svg class="absolute inset-0 block" {width} {height} aria-hidden="true">
      <StripBackground {spec} {index} {cells} {height} {width} {cursor} {scale} />
      {#if !folded}<LaneMarks
          {spec}
          {index}
          {chartPart}
          {cells}
          {values}
          {scale}
          {height}
          {cursor}
          {marks}
        />{/if}
      {#if !folded && !view.following && !lane.linked}
        <LoopEnd {name} {index} {lane} {cells} {width} {height} />
      {/if}
      <CursorValue value={cursorValue} {width} />
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
