<!-- @component The lane below a roll: velocities or lengths as stems, which can be drawn, or a controller as it was sent. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";
  import { channelWords } from "../../output/voltageFields";
  import RollScope from "./RollScope.svelte";
  import RollStems from "./RollStems.svelte";

  let { roll, scale, edge }: { roll: Roll; scale: RollScale; edge: number } = $props();

  const desk = getTakeDesk();
  const height = 84;
  const foot = 4;

  const drawn = $derived(typeof desk.lane === "string" ? desk.lane : undefined);
  const control = $derived(typeof desk.lane === "number" ? roll.controls[desk.lane] : undefined);
  const volts = $derived(typeof desk.lane === "object" ? desk.lane : undefined);
  const channels = $derived(
    roll.summary.id < 0
      ? []
      : (desk.session.project.outputs ?? []).flatMap(({ id, name, voltages }) =>
          (voltages?.channels ?? []).map((channel) => ({
            value: `volts ${id} ${channel.channel}`,
            words: `${name} ${channel.channel} · ${channel.signal} ${channelWords(channel, desk.session.project.tracks)}`,
          })),
        ),
  );
  const shown = $derived(
    volts
      ? `volts ${volts.output} ${volts.channel}`
      : control
        ? String(desk.lane)
        : (drawn ?? "velocities"),
  );
  const most = $derived(control ? String(control.most) : drawn === "lengths" ? "1 bar" : "127");
  const lanes = $derived(
    roll.controls.map((c, i) => ({
      value: String(i),
      words: `${trackName(c.track)} · ${kindName(c.kind, c.number)}`,
    })),
  );
  /** The controller's way as steps: it stands until it is sent anew. */
  const path = $derived.by(() => {
    if (!control) return "";
    const y = (value: number) => height - foot - (value / control.most) * (height - 2 * foot);
    let way = "";
    for (const { tick, value } of control.points) {
      const x = Math.max(0, scale.x(tick)).toFixed(1);
      way += way ? `H${x}V${y(value).toFixed(1)}` : `M${x} ${y(value).toFixed(1)}`;
    }
    return `${way}H${scale.x(Math.min(scale.to, roll.end)).toFixed(1)}`;
  });

  function trackName(id: number): string {
    return roll.tracks.find((track) => track.id === id)?.name ?? "";
  }

  function kindName(kind: string, number: number): string {
    if (kind === "control") return `CC ${number}`;
    return kind === "control14" ? `CC ${number}, 14 bits` : kind;
  }

  function select(value: string): void {
    const [kind, output = 0, channel = 0] = value.split(" ");
    if (kind === "volts") desk.lane = { output: Number(output), channel: Number(channel) };
    else desk.lane = value === "velocities" || value === "lengths" ? value : Number(value);
  }
</script>

<div
  class="border-line grid grid-rows-[24px_84px] border-t"
  style:grid-template-columns="{edge}px minmax(0, 1fr)"
>
  <span class="col-span-2 flex items-center gap-2 px-2">
    <select
      class="control h-[22px]! text-[12px]!"
      aria-label="Lane below the roll"
      data-help="What the lane below the roll shows."
      value={shown}
      onchange={(event) => select(event.currentTarget.value)}
    >
      <option value="velocities">velocity</option>
      <option value="lengths">length</option>
      {#each lanes as { value, words } (value)}
        <option {value}>{words}</option>
      {/each}
      {#each channels as { value, words } (value)}
        <option {value}>{words}</option>
      {/each}
    </select>
    <span class="caption">
      {volts
        ? "as an interface would give it; the pointer reads it off"
        : control
          ? "as it was sent; under notes it is thinned out"
          : "drag over the stems to draw"}
    </span>
  </span>
  {#if volts}
    <RollScope {roll} {scale} lane={volts} {edge} {height} />
  {:else}
    <svg width={edge} {height} aria-hidden="true">
      <text x={edge - 6} y="12" class="caption" text-anchor="end" fill="var(--ink-2)">{most}</text>
      <text x={edge - 6} y={height - 2} class="caption" text-anchor="end" fill="var(--ink-2)"
        >0</text
      >
    </svg>
  {/if}
  {#if volts}{:else if control}
    <svg
      width={scale.width}
      {height}
      class="block"
      role="img"
      aria-label="{control.points.length} values"
    >
      <path d={path} fill="none" stroke="var(--ink)" stroke-width="1.5" />
    </svg>
  {:else}
    <RollStems {roll} {scale} lane={drawn ?? "velocities"} {height} {foot} />
  {/if}
</div>
