<!-- @component The modulator that is written: how it goes, and what it moves and sends. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Modulator } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import type { Perform } from "../../state/perform.svelte";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import ControlPicker from "./ControlPicker.svelte";
  import ModulatorSends from "./ModulatorSends.svelte";
  import ModulatorShape from "./ModulatorShape.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const movers = $derived(perform.movers);
  const modulator = $derived(
    movers.modulators.find(({ id }) => id === perform.modulator) ?? movers.modulators[0],
  );
  const set = (id: number, change: ChangeOf<Modulator, Partial<Modulator>>) =>
    movers.changeModulator(id, change);
</script>

{#if modulator}
  {@const { id } = modulator}
  <ChoiceRow
    label="modulator"
    name="Modulator to write"
    help="Which modulator is written here."
    value={String(id)}
    choices={movers.modulators.map((m) => ({ value: String(m.id), label: m.name }))}
    select={(value) => (perform.modulator = Number(value))}
  />
  <TextRow
    label="name"
    name="Modulator name"
    help="Name of the modulator."
    value={modulator.name}
    commit={(name) => set(id, { name })}
  />
  {@const amount = movers.amount(modulator)}
  {@const effective = movers.effectiveAmount(modulator)}
  <NumberRow
    label="amount"
    name="Modulator amount"
    unit={effective === amount ? "%" : `now ${effective} %`}
    help="Scales all its depths. It is a live change, which macros and faders can turn too."
    value={amount}
    {...bounds.Modulator.amount}
    commit={(amount) => movers.setAmount(modulator, amount)}
  />
  <ModulatorShape {modulator} {movers} set={(change) => set(id, change)} />
  {#each modulator.moves as move, i (JSON.stringify(move.control))}
    {@const words = movers.words(move.control)}
    <div
      class="border-line flex items-center gap-1 border-t pt-1"
      role="group"
      aria-label="Moves {words}"
    >
      <div class="min-w-0 flex-1">
        <NumberRow
          label={words}
          name="Depth on {words}"
          unit="%"
          help="How far it moves the control, as a share of its range; below 0 the other way around."
          value={move.depth / 10}
          min={bounds.ModulatorMove.depth.min / 10}
          max={bounds.ModulatorMove.depth.max / 10}
          decimals={1}
          width="56px"
          commit={(depth) =>
            set(id, (now) => ({ moves: changed(now.moves, i, { depth: Math.round(depth * 10) }) }))}
        />
      </div>
      <button
        class="control px-1!"
        aria-label="Take {words} out of the modulator"
        onclick={() => set(id, (now) => ({ moves: changed(now.moves, i, undefined) }))}>×</button
      >
    </div>
  {/each}
  <ControlPicker
    {movers}
    label="Add a control to the modulator"
    want={(spec) => spec.modulated ?? false}
    without={modulator.moves.map(({ control }) => control)}
    select={(control) => set(id, (now) => ({ moves: [...now.moves, { control, depth: 300 }] }))}
  />
  <ModulatorSends {modulator} tracks={session.project.tracks} set={(change) => set(id, change)} />
{:else}
  <p class="text-ink-2 py-1">
    A modulator moves controls by itself: along a shape, or with what happens. It is drawn ahead as
    far as it is known.
  </p>
{/if}
<div class="flex gap-1 py-1">
  <button
    class="control"
    aria-label="Add a modulator"
    disabled={movers.modulators.length >= 16}
    onclick={async () => (perform.modulator = await movers.addModulator())}>+ modulator</button
  >
  {#if modulator}
    <button
      class="control"
      aria-label="Delete the modulator"
      data-help="Delete the modulator. Undo brings it back."
      onclick={() => movers.removeModulator(modulator.id)}>delete</button
    >
  {/if}
</div>
