<!-- @component How a voltage goes under a roll; the pointer reads volts and time off. -->
<script lang="ts">
  import { get } from "../../api/http";
  import type { Roll, Scope } from "../../api/types";
  import type { RollScale } from "../../roll/rollScale";
  import { millisAt } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import type { VoltageLane } from "../../state/takeDesk.svelte";
  import RollReadOut from "./RollReadOut.svelte";

  interface Props {
    roll: Roll;
    scale: RollScale;
    lane: VoltageLane;
    edge: number;
    height: number;
  }
  let { roll, scale, lane, edge, height }: Props = $props();

  const desk = getTakeDesk();
  const foot = 6;
  let scope = $state.raw<Scope>();
  let pointer = $state<number>();

  $effect(() => {
    const { id, version } = roll.summary;
    void version;
    const stale = new AbortController();
    const query = `output=${lane.output}&channel=${lane.channel}&begin=${Math.floor(scale.from)}&end=${Math.ceil(scale.to)}`;
    get<Scope>(`api/takes/${id}/scope?${query}`, stale.signal)
      .then((next) => (scope = next))
      .catch((error: unknown) => {
        if (!stale.signal.aborted)
          desk.session.notices.add(`The voltages cannot be drawn: ${(error as Error).message}.`);
      });
    return () => stale.abort();
  });

  const points = $derived(scope?.points ?? []);
  /** Whole volts around all that is shown. */
  const lowest = $derived(Math.floor(Math.min(...points.map(({ volts }) => volts))));
  const highest = $derived(
    Math.max(lowest + 1, Math.ceil(Math.max(...points.map(({ volts }) => volts)))),
  );

  function y(volts: number): number {
    return height - foot - ((volts - lowest) / (highest - lowest)) * (height - 2 * foot);
  }

  const path = $derived(
    points
      .map(
        ({ tick, volts }, i) =>
          `${i ? "L" : "M"}${scale.x(tick).toFixed(1)} ${y(volts).toFixed(1)}`,
      )
      .join(""),
  );

  /** The voltage at a tick, between the points around it. */
  function at(tick: number): number | undefined {
    const next = points.findIndex((p) => p.tick > tick);
    const [before, after] = [points.at(next < 0 ? -1 : next - 1), points[next]];
    if (!before || next === 0) return undefined;
    if (!after || after.tick === before.tick) return before.volts;
    return (
      before.volts +
      ((after.volts - before.volts) * (tick - before.tick)) / (after.tick - before.tick)
    );
  }

  const read = $derived.by(() => {
    if (pointer === undefined) return undefined;
    const tick = scale.tick(pointer);
    const volts = at(tick);
    if (volts === undefined) return undefined;
    return {
      x: pointer,
      y: y(volts),
      text: `${volts.toFixed(3)} V, ${(millisAt(roll.paces, tick) / 1000).toFixed(3)} s`,
    };
  });
</script>

<svg width={edge} {height} aria-hidden="true">
  <text x={edge - 6} y="12" class="caption" text-anchor="end" fill="var(--ink-2)"
    >{points.length > 0 ? `${highest} V` : ""}</text
  >
  <text x={edge - 6} y={height - 2} class="caption" text-anchor="end" fill="var(--ink-2)"
    >{points.length > 0 ? lowest : ""}</text
  >
</svg>
<svg
  width={scale.width}
  {height}
  class="block overflow-hidden"
  role="img"
  aria-label="Voltage of channel {lane.channel}"
  onpointermove={(event) => (pointer = event.offsetX)}
  onpointerleave={() => (pointer = undefined)}
>
  {#if points.length > 0}
    {#each [lowest, highest] as volts (volts)}
      <line x1="0" x2={scale.width} y1={y(volts)} y2={y(volts)} stroke="var(--line)" />
    {/each}
  {/if}
  <path d={path} fill="none" stroke="var(--ink)" stroke-width="1.5" />
  {#if read}
    <circle cx={read.x} cy={read.y} r="3" fill="var(--signal)" />
    <RollReadOut
      x={Math.max(0, Math.min(scale.width - 150, read.x + 6))}
      y={Math.max(18, Math.min(height - 2, read.y))}
      text={read.text}
    />
  {/if}
</svg>
