<!-- @component How a modulator goes: along a shape in time, as another, or with what drives it. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Modulator } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Movers } from "../../state/movers.svelte";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import ModulatorBegin from "./ModulatorBegin.svelte";
  import TextRow from "../fields/TextRow.svelte";

  interface Props {
    modulator: Modulator;
    movers: Movers;
    set: (change: ChangeOf<Modulator, Partial<Modulator>>) => Promise<void>;
  }
  let { modulator, movers, set }: Props = $props();

  const session = getSession();
  const shapes = $derived(session.lists.waveShapes);
  const shape = $derived(shapes.find(({ name }) => name === modulator.shape));
  const others = $derived(movers.modulators.filter(({ id }) => id !== modulator.id));

  function setShape(shape: Modulator["shape"]): Promise<void> {
    return set({
      shape,
      ...(shape === "copy" && {
        copies: modulator.copies ?? others[0]?.id ?? 0,
        stretch: modulator.stretch ?? { n: 1, m: 1 },
      }),
      ...(!modulator.track && { track: session.project.tracks[0]?.id ?? 0 }),
      mod: modulator.mod || 1,
    });
  }

  /** Levels that were typed with spaces or commas between them, −100 to 100. */
  function setPoints(text: string): void {
    const points = text.split(/[\s,]+/).map(Number);
    const right = points.every((level) => Number.isInteger(level) && Math.abs(level) <= 100);
    if (right && points.length >= 2) void set({ points });
    else
      session.notices.add(
        `“${text}” is no list of 2 or more levels from −100 to 100; the shape stays as it was.`,
      );
  }
</script>

<ChoiceRow
  label="shape"
  name="Modulator shape"
  help="A shape in time, the curve of another modulator, or what drives it."
  value={modulator.shape}
  choices={shapes.map(({ name, label, help }) => ({ value: name, label, help }))}
  select={(shape) => setShape(shape as Modulator["shape"])}
/>
{#if shape?.free}
  <ChoiceRow
    label="runs in"
    name="Modulator time"
    help="Whether a pass counts note values, or so many come a second."
    value={modulator.hertz ? "hertz" : "notes"}
    choices={[
      { value: "notes", label: "note values" },
      { value: "hertz", label: "Hz" },
    ]}
    select={(time) => set({ hertz: time === "hertz" ? 500 : 0 })}
  />
  {#if modulator.hertz}
    <NumberRow
      label="rate"
      name="Modulator rate"
      unit="Hz"
      help="How many passes a second has."
      value={modulator.hertz / 1000}
      min={0.001}
      max={bounds.Modulator.hertz.max / 1000}
      decimals={3}
      commit={(hertz) => set({ hertz: Math.max(1, Math.round(hertz * 1000)) })}
    />
  {:else}
    <NumberRow
      label="pass"
      name="Modulator pass"
      unit="×"
      help="How many of the note values below a pass lasts."
      value={modulator.times ?? 1}
      min={1}
      max={bounds.Modulator.times.max}
      commit={(times) => set({ times })}
    />
    <ChoiceRow
      label="note value"
      name="Modulator note value"
      help="The note value of which a pass has so many."
      value={modulator.value ?? "1/4"}
      choices={session.lists.rates.map(({ name }) => name)}
      select={(value) => set({ value: value as NonNullable<Modulator["value"]> })}
    />
  {/if}
{/if}
{#if modulator.shape === "drawn"}
  <TextRow
    label="levels"
    name="Modulator levels"
    help="The levels of the shape, from −100 to 100, with spaces between them."
    value={(modulator.points ?? []).join(" ")}
    commit={setPoints}
  />
{/if}
{#if modulator.shape === "copy"}
  <ChoiceRow
    label="as"
    name="Modulator that it copies"
    help="The modulator whose curve it follows."
    value={String(modulator.copies ?? 0)}
    choices={others.map(({ id, name }) => ({ value: String(id), label: name }))}
    select={(copies) => set({ copies: Number(copies) })}
  />
  {#each ["n", "m"] as const as side (side)}
    <NumberRow
      label={side === "n" ? "stretched by" : "over"}
      name="Modulator stretch {side}"
      help="How much longer its passes last: 3 over 2 is half as long again."
      value={modulator.stretch?.[side] ?? 1}
      {...bounds.Ratio.n}
      commit={(value) => set((now) => ({ stretch: { n: 1, m: 1, ...now.stretch, [side]: value } }))}
    />
  {/each}
{/if}
{#if shape?.leveled}
  <ChoiceRow
    label="between"
    name="Between levels"
    help="How a drawn or a random shape goes from one level to the next."
    value={modulator.between ?? ""}
    choices={[
      { value: "", label: "at once" },
      { value: "line", label: "in a line" },
      { value: "smooth", label: "smoothly" },
    ]}
    select={(between) => set({ between: between as NonNullable<Modulator["between"]> })}
  />
{/if}
{#if shape?.byTrack}
  <ChoiceRow
    label="of"
    name="Track that drives the modulator"
    help="The track that drives it. It may not be one that it moves."
    value={String(modulator.track ?? 0)}
    choices={session.project.tracks.map(({ id, name }) => ({ value: String(id), label: name }))}
    select={(track) => set({ track: Number(track) })}
  />
{/if}
{#if shape?.byMod}
  <NumberRow
    label="mod lane"
    name="Mod lane that drives it"
    help="Which mod lane of the track."
    value={modulator.mod ?? 1}
    min={1}
    max={bounds.Modulator.mod.max}
    commit={(mod) => set({ mod })}
  />
{/if}
{#if modulator.shape === "notes"}
  {#each ["attack", "release"] as const as time (time)}
    <NumberRow
      label={time}
      name="Modulator {time}"
      unit="ms"
      help="How long it {time === 'attack' ? 'rises with a note' : 'falls after one'}."
      value={modulator[time] ?? 0}
      {...bounds.Modulator[time]}
      commit={(value) => set({ [time]: value })}
    />
  {/each}
{/if}
{#if modulator.shape === "control"}
  <NumberRow
    label="CC"
    name="Modulator CC"
    help="The controller that drives it."
    value={modulator.controller ?? 0}
    {...bounds.Modulator.controller}
    commit={(controller) => set({ controller })}
  />
  <NumberRow
    label="channel"
    name="Modulator channel"
    help="The MIDI channel of the controller; 0 is any."
    value={modulator.channel ?? 0}
    {...bounds.Modulator.channel}
    commit={(channel) => set({ channel })}
  />
{/if}
{#if shape?.free}<ModulatorBegin {modulator} {set} />{/if}
