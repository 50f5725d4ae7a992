<!-- @component The lane below a roll: velocities as stems, which can be drawn, or a controller as it was sent. -->
<script lang="ts">
  import type { Roll } from "../../api/types";
  import type { RollScale } from "../../roll/rollScale";
  import { getTakeDesk } from "../../state/context";

  let { roll, scale }: { roll: Roll; scale: RollScale } = $props();

  const desk = getTakeDesk();
  const height = 84;
  const foot = 4;

  /** Velocities that are being drawn, by the places of their notes. */
  let drawn = $state.raw<Map<number, number>>();

  const control = $derived(roll.controls[desk.lane]);
  const shown = $derived(
    roll.notes.filter((note) => desk.track === undefined || note.track === desk.track),
  );
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

  function y(velocity: number): number {
    return height - foot - (velocity / 127) * (height - 2 * foot);
  }

  /** Gives the stems near a place its height; where notes are chosen, only theirs. */
  function draw(event: PointerEvent & { currentTarget: SVGElement }): void {
    const box = event.currentTarget.getBoundingClientRect();
    const x = event.clientX - box.x;
    const share = (height - foot - (event.clientY - box.y)) / (height - 2 * foot);
    const velocity = Math.min(127, Math.max(1, Math.round(share * 127)));
    const next = new Map(drawn);
    for (const note of shown) {
      const free = !desk.chosen.size || desk.chosen.has(note.place);
      if (free && Math.abs(scale.x(note.start) - x) < 5) next.set(note.place, velocity);
    }
    drawn = next;
  }

  async function finish(): Promise<void> {
    if (!drawn) return;
    await desk.setVelocities(drawn);
    drawn = undefined;
  }
</script>

<div class="border-line grid grid-cols-[44px_minmax(0,1fr)] grid-rows-[24px_84px] border-t">
  <span class="col-span-2 flex items-center gap-2 px-2">
    <select
      class="control h-[22px]! text-[12px]!"
      aria-label="Lane below the roll"
      data-help="What the lane below the roll shows."
      value={String(control ? desk.lane : -1)}
      onchange={(event) => (desk.lane = Number(event.currentTarget.value))}
    >
      <option value="-1">velocity</option>
      {#each lanes as { value, words } (value)}
        <option {value}>{words}</option>
      {/each}
    </select>
    <span class="caption">
      {control ? "as it was sent; under notes it is thinned out" : "drag over the stems to draw"}
    </span>
  </span>
  <svg width="44" {height} aria-hidden="true">
    <text x="38" y="12" class="caption" text-anchor="end" fill="var(--ink-2)"
      >{control ? control.most : 127}</text
    >
    <text x="38" y={height - 2} class="caption" text-anchor="end" fill="var(--ink-2)">0</text>
  </svg>
  {#if control}
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
    <svg
      width={scale.width}
      {height}
      class="block touch-none"
      role="img"
      aria-label="Velocities"
      data-help="Drag over the stems to draw velocities. Where notes are chosen only theirs change; + and − change them by keys."
      onpointerdown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drawn = new Map();
        draw(event);
      }}
      onpointermove={(event) => drawn && draw(event)}
      onpointerup={finish}
      onpointercancel={() => (drawn = undefined)}
    >
      <line x2={scale.width} y1={height - foot} y2={height - foot} stroke="var(--line-strong)" />
      {#each shown as note (note.place)}
        {@const velocity = drawn?.get(note.place) ?? note.velocity}
        {@const x = scale.x(Math.max(note.start, scale.from))}
        <line x1={x} x2={x} y1={height - foot} y2={y(velocity)} stroke="var(--ink)" />
        <circle
          cx={x}
          cy={y(velocity)}
          r="2.6"
          fill={desk.chosen.has(note.place) ? "var(--lamp)" : "var(--ink)"}
          stroke="var(--ink)"
        />
      {/each}
    </svg>
  {/if}
</div>
